using Garten.Core.Botany;
using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Vocabulary;

/// <summary>Adds a part or a quality to the vocabulary, or changes one.</summary>
internal sealed class DefineTermHandler : ICommandHandler<DefineTermCommand>
{
    // So many words for one thing; nobody reads more.
    private const int MostTerms = 60;

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(DefineTermCommand command) => [ChangeSubject.Vocabulary];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(DefineTermCommand define, CommandContext context, CancellationToken stop)
    {
        var (part, quality) = (define.Part, define.Quality);
        if (part is null == quality is null)
            throw Refusal.Of(422, "term.one", "Nothing, or two things, would be defined.", "Give a part or a quality.", "part");
        if (part is not null)
            Texts(part);
        else
            Texts(quality!);
        var current = (await VocabularyRepository.CurrentAsync(context.Connection, stop)).Botany.Vocabulary;
        if (quality is not null && current.Qualities.FirstOrDefault(q => q.Id == quality.Id) is { } before)
            KeepsItsStates(before, quality);
        var next = VocabularyRepository.With(current, part, quality);
        if (VocabularyCheck.Problems(next) is [var problem, ..])
            throw Refusal.Of(422, "term.invalid", problem.Message, $"It stands at: {problem.Place}.", part is null ? "quality" : "part");
        // Looks and readings cite the vocabulary that they were made by: each that there was is kept whole.
        await VocabularyRepository.KeepAsync(context.Connection, context.Now, stop);
        await VocabularyRepository.AddAsync(context.Connection, define, context.Now, stop);
        return new CommandResult(define.Id, CommandStatus.Applied);
    }

    // What was recorded with a state has to find it again: one that is no longer wanted is merged into another one.
    private static void KeepsItsStates(Quality before, Quality after)
    {
        if (before.Kind != after.Kind)
            throw Refusal.Of(
                422,
                "quality.kind",
                $"{before.Name} has values of another kind.",
                "Make a new quality for it, and merge this one into it.",
                "quality.kind"
            );
        if (before.States.FirstOrDefault(s => after.Find(s.Id) is null) is { } gone)
            throw Refusal.Of(
                422,
                "state.gone",
                $"The state “{gone.Name}” would be gone, and what was recorded with it.",
                "Keep it, and say into which one it is merged.",
                "quality.states"
            );
    }

    private static void Texts(Part part)
    {
        Check.Text(part.Id, "part.id", "The id", Limits.LongestName, required: true);
        Check.Text(part.Definition, "part.definition", "The definition", Limits.LongestFinding, required: true);
        Terms(part.Nouns, "part.nouns", "nouns");
    }

    private static void Texts(Quality quality)
    {
        Check.Text(quality.Id, "quality.id", "The id", Limits.LongestName, required: true);
        Check.Text(quality.Name, "quality.name", "The name", Limits.LongestName, required: true);
        Check.Text(quality.Definition, "quality.definition", "The definition", Limits.LongestFinding, required: true);
        Check.Text(quality.Trap, "quality.trap", "The trap", Limits.LongestFinding, required: true);
        Terms(quality.Measures, "quality.measures", "words");
        if (quality.States.Count > VocabularyCheck.MostStates)
            throw Refusal.Of(
                422,
                "quality.states",
                $"These are {quality.States.Count} states.",
                $"A quality has up to {VocabularyCheck.MostStates}. Divide it into several qualities.",
                "quality.states"
            );
        for (var i = 0; i < quality.States.Count; i++)
        {
            var (state, field) = (quality.States[i], $"quality.states[{i}]");
            Check.Text(state.Name, field + ".name", "The name", Limits.LongestName, required: true);
            Check.Text(state.Definition, field + ".definition", "The definition", Limits.LongestFinding, required: true);
            Terms(state.Terms, field + ".terms", "terms");
            if (state.Picture is { } picture && VocabularyCheck.PictureProblem(picture) is { } wrong)
                throw Refusal.Of(422, "state.picture", wrong, "Choose a small PNG or JPEG, or one of our drawings.", field + ".picture");
        }
    }

    private static void Terms(IReadOnlyList<string> terms, string field, string what)
    {
        if (terms.Count > MostTerms)
            throw Refusal.Of(422, field + ".many", $"These are {terms.Count} {what}.", $"Give up to {MostTerms}.", field);
        foreach (var term in terms)
            Check.Text(term, field, "A term", Limits.LongestTerm, required: true);
    }
}
