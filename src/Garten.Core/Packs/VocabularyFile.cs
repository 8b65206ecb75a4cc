using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Seasons;

namespace Garten.Core.Packs;

/// <summary>The binary form of a vocabulary, for the browser: a fifteenth of the time that its JSON takes there. What is kept and hashed is
/// the JSON.</summary>
public static class VocabularyFile
{
    private const uint Magic = 0x31564B47;
    private const byte Form = 2;

    /// <summary>Writes a vocabulary.</summary>
    /// <param name="vocabulary">The vocabulary.</param>
    /// <param name="version">Hash of its content.</param>
    public static byte[] Write(Vocabulary vocabulary, string version)
    {
        ArgumentNullException.ThrowIfNull(vocabulary);
        ArgumentNullException.ThrowIfNull(version);
        var to = new PackWriter();
        to.Text(version);
        to.Many(vocabulary.Parts, part =>
        {
            to.Text(part.Id);
            to.Text(part.Parent);
            to.Count((int)part.Class);
            to.Count((int)part.Organ);
            to.Texts(part.Owners);
            to.Texts(part.Nouns);
            to.Texts(part.Groups);
            to.Many(part.SeenIn, phase => to.Count((int)phase));
            to.Count((int)part.Tool);
            to.Count((int)part.Handling);
            to.Text(part.Definition);
            to.Maybe(part.ReplacedBy);
        });
        to.Many(vocabulary.Qualities, quality =>
        {
            to.Text(quality.Id);
            to.Text(quality.Name);
            to.Count((int)quality.Kind);
            to.Texts(quality.Applies);
            to.Text(quality.Unit);
            to.Texts(quality.Measures);
            to.Number(quality.Reliability);
            to.Number(quality.Detection);
            to.Count(quality.EffortSeconds);
            to.Count((int)quality.Tool);
            to.Count((int)quality.Handling);
            to.Flag(quality.Several);
            to.Text(quality.Definition);
            to.Text(quality.Trap);
            to.Many(quality.States, state => WriteState(to, state));
            to.Maybe(quality.ReplacedBy);
        });
        to.Many(vocabulary.Meanings, meaning =>
        {
            to.Text(meaning.Character);
            to.Text(meaning.State);
            to.Texts(meaning.Says);
        });
        to.Many(vocabulary.Implications, it =>
        {
            foreach (var text in new[] { it.Quality, it.State, it.Implies, it.Implied, it.Because })
                to.Text(text);
        });
        to.Flag(vocabulary.Words is not null);
        to.Many(vocabulary.Words ?? [], word =>
        {
            to.Text(word.Text);
            to.Text(word.Kind);
            to.Text(word.Value);
        });
        return to.WithHead(Magic, Form);
    }

    /// <summary>The hash of the content of what <see cref="Write"/> has written.</summary>
    /// <exception cref="PackFormatException">It is no vocabulary of this form, or cut off.</exception>
    public static string VersionOf(byte[] bytes)
    {
        ArgumentNullException.ThrowIfNull(bytes);
        var from = new PackReader(bytes);
        return PackReader.Whole(() =>
        {
            from.TakeHead(Magic, Form, "vocabulary");
            return from.Text();
        });
    }

    /// <summary>Reads what <see cref="Write"/> has written.</summary>
    /// <exception cref="PackFormatException">It is no vocabulary of this form, or cut off.</exception>
    public static BotanyIndex Read(byte[] bytes)
    {
        ArgumentNullException.ThrowIfNull(bytes);
        var from = new PackReader(bytes);
        return PackReader.Whole(() =>
        {
            from.TakeHead(Magic, Form, "vocabulary");
            var version = from.Text();
            var parts = from.Many(() =>
                new Part(
                    from.Text(),
                    from.Text(),
                    from.OneOf<PartClass>(),
                    from.OneOf<Organ>(),
                    from.Texts(),
                    from.Texts(),
                    from.Texts(),
                    from.Many(from.OneOf<Phenophase>),
                    from.OneOf<Tool>(),
                    from.OneOf<Handling>(),
                    from.Text(),
                    from.Maybe()
                )
            );
            var qualities = from.Many(() =>
                new Quality(
                    from.Text(),
                    from.Text(),
                    from.OneOf<CharacterKind>(),
                    from.Texts(),
                    from.Text(),
                    from.Texts(),
                    from.Number() ?? 0,
                    from.Number() ?? 0,
                    from.Count(),
                    from.OneOf<Tool>(),
                    from.OneOf<Handling>(),
                    from.Flag(),
                    from.Text(),
                    from.Text(),
                    from.Many(() => ReadState(from)),
                    from.Maybe()
                )
            );
            var meanings = from.Many(() => new StateMeaning(from.Text(), from.Text(), from.Texts()));
            var implications = from.Many(() => new Implication(from.Text(), from.Text(), from.Text(), from.Text(), from.Text()));
            var hasWords = from.Flag();
            var words = from.Many(() => new GrammarWord(from.Text(), from.Text(), from.Text()));
            return new BotanyIndex(new Vocabulary(parts, qualities, meanings, implications, hasWords ? words : null), version);
        });
    }

    private static void WriteState(PackWriter to, QualityState state)
    {
        foreach (var text in new[] { state.Id, state.Name, state.Broader, state.Near })
            to.Text(text);
        to.Texts(state.Terms);
        to.Text(state.Definition);
        foreach (var text in new[] { state.ReplacedBy, state.DrawnAs, state.Picture })
            to.Maybe(text);
    }

    private static QualityState ReadState(PackReader from) =>
        new(from.Text(), from.Text(), from.Text(), from.Text(), from.Texts(), from.Text(), from.Maybe(), from.Maybe(), from.Maybe());
}
