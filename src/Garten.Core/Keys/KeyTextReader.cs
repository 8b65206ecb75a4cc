using System.Text.RegularExpressions;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>
/// Reads dichotomous keys as they stand in books: bracketed or indented, recognised without being told, several in one text.
/// What forms are understood is written down in docs/formats.md.
/// </summary>
public static partial class KeyTextReader
{
    /// <summary>The longest text that is read, in UTF-8 bytes: 1 MiB, several times the longest printed flora's keys to one
    /// family.</summary>
    public const int LongestText = 1 << 20;

    // A text with more problems than this is no key; listing them all would help nobody.
    private const int MostProblems = 300;

    /// <summary>
    /// Reads a text. Never throws: whatever is wrong with it is among the problems of the reading, and what can be read is read.
    /// A text over <see cref="LongestText"/> and one with characters that no text has give a single problem and no key.
    /// </summary>
    /// <param name="text">The text as typed or pasted, with line ends of any kind.</param>
    public static KeyReading Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (System.Text.Encoding.UTF8.GetByteCount(text) > LongestText)
        {
            return Refused("text.too-long", "This text is longer than 1 MiB. Paste the keys of one group at a time.");
        }
        if (SourceText.LooksBinary(text))
        {
            return Refused(
                "text.binary",
                "This isn't plain text: it holds characters that no text has. Copy the key out of the document and paste it as text (UTF-8)."
            );
        }
        if (string.IsNullOrWhiteSpace(text))
            return Refused("text.empty", "There is no text yet. Paste a key, for example “1. Leaves opposite ... 2”.");

        var (raws, problems) = LeadScanner.Scan(SourceText.Lines(text));
        raws.RemoveAll(k => k.Leads.Count == 0);
        if (raws.Count == 0)
        {
            return Refused(
                "key.none",
                "No couplet was found. A lead begins with its couplet's number and ends with where it goes, for example “1a. Leaves opposite ... 2”."
            );
        }
        if (raws.Count > MostKeys)
        {
            return Refused("key.too-many", $"This text holds {raws.Count} keys; {MostKeys} at a time are read. Paste it in parts.");
        }
        raws = JoinContinuedKeys(raws);
        var contexts = Contexts(raws);
        var drafts = raws.Select((raw, i) => CoupletAssembler.Assemble(raw, contexts[i])).ToList();
        HandOverAcrossKeys(drafts);
        problems.AddRange(KeyCheck.Check(drafts, LineEnds().Split(text)));
        var sorted = problems.OrderBy(p => p.Line).ThenBy(p => p.Column).ThenByDescending(p => p.Severity).ToList();
        if (sorted.Count > MostProblems)
        {
            // Errors first: what is cut off must not make an unsound key look sound.
            sorted = [.. sorted.OrderByDescending(p => p.Severity).Take(MostProblems).OrderBy(p => p.Line).ThenBy(p => p.Column)];
        }
        return new KeyReading([.. drafts.Select(d => d.ToKey())], sorted);
    }

    [GeneratedRegex("\r\n|\r|\n", RegexOptions.CultureInvariant)]
    private static partial Regex LineEnds();

    // More keys than any one flora has in one chapter.
    private const int MostKeys = 200;

    private static KeyReading Refused(string code, string message) => new([], [new KeyProblem(ProblemSeverity.Error, code, 1, 1, message)]);

    private static List<TailContext> Contexts(List<RawKey> raws)
    {
        var genera = new HashSet<string>(StringComparer.Ordinal);
        foreach (var raw in raws)
        {
            foreach (
                var word in raw.Title.Split(' ', StringSplitOptions.RemoveEmptyEntries).Skip(1).Select(w => w.Trim('*', '_', '.', ',', ':'))
            )
            {
                if (
                    TaxonName.IsGenus(word)
                    && !KeyTextPatterns.StatementNoun().IsMatch(word)
                    && raw.Title.Contains(" of " + word, StringComparison.Ordinal)
                )
                    genera.Add(word);
            }
            foreach (var lead in raw.Leads)
            {
                if (
                    lead.OwnTail is { Strength: LeaderStrength.Set, Destination.Taxon: { IsScientific: true } name }
                    && name.Genus.Length > 2
                )
                    genera.Add(name.Genus);
            }
        }
        return
        [
            .. raws.Select(
                (raw, i) =>
                    new TailContext(
                        raw.Leads.Select(l => l.Label).OfType<string>().ToHashSet(StringComparer.Ordinal),
                        genera,
                        [.. raws.Where((_, other) => other != i).Select(k => k.Title).Where(t => t.Length > 0)]
                    )
            ),
        ];
    }

    // A heading inside a key whose numbers run on is no new key: leads on one side name couplets on the other by their numbers.
    private static List<RawKey> JoinContinuedKeys(List<RawKey> raws)
    {
        var joined = new List<RawKey> { raws[0] };
        foreach (var next in raws.Skip(1))
        {
            var last = joined[^1];
            var before = Labels(last);
            var labels = Labels(next);
            var named = joined
                .SelectMany(k => k.Leads)
                .Any(l => l.OwnTail?.Destination is { Kind: DestinationKind.Key } to && KeyTitle.IsNamedBy(next.Title, to.Target));
            if (!named && !before.Overlaps(labels) && GoesInto(last, before, labels))
                Join(last, next);
            else
                joined.Add(next);
        }
        return joined;

        static HashSet<string> Labels(RawKey key) => [.. key.Leads.Select(l => l.Label).OfType<string>()];

        static bool GoesInto(RawKey key, HashSet<string> own, HashSet<string> labels) =>
            key.Leads.Exists(l =>
                l.OwnTail?.Destination is { Kind: DestinationKind.Couplet } to && !own.Contains(to.Target) && labels.Contains(to.Target)
            );

        static void Join(RawKey last, RawKey next)
        {
            if (next.Title.Length > 0)
                last.Notes.Add(next.Title);
            last.Notes.AddRange(next.Notes);
            last.Leads.AddRange(next.Leads);
        }
    }

    // A number that no couplet of this key has, but with which another key of the text begins, hands over to that key.
    private static void HandOverAcrossKeys(List<DraftKey> drafts)
    {
        if (drafts.Count < 2)
            return;
        foreach (var draft in drafts)
        {
            var own = draft.Couplets.Select(c => c.Label).ToHashSet(StringComparer.Ordinal);
            foreach (var lead in draft.Couplets.SelectMany(c => c.Leads))
            {
                if (lead.Destination is not { Kind: DestinationKind.Couplet } to || own.Contains(to.Target))
                    continue;
                var begun = drafts.Where(d => d != draft && d.Raw.Title.Length > 0 && d.Couplets[0].Label == to.Target).ToList();
                if (begun.Count == 1)
                    lead.Destination = new LeadDestination(DestinationKind.Key, begun[0].Raw.Title, null, to.Page);
            }
        }
    }
}
