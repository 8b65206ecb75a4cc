using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Language;

namespace Garten.Core.Contracts;

/// <summary>A key whose statements are to be looked through.</summary>
/// <param name="Hash">Hash of the version.</param>
/// <param name="First">So many couplets alone, so that a large key shows something at once; 0: all.</param>
public sealed record KeyReadingRequest(string Hash, int First = 0) : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => [Hash];

    /// <summary>Reads it; without statements where the version isn't on the shelf.</summary>
    public ReadKey Read(BenchShelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        return shelf.Keys.Find(Hash) is { } version ? ReadKey.Of(shelf, version, First) : new(new(0, 0, 0, 0), [], [], []);
    }
}

/// <summary>How much of a key is weighed.</summary>
/// <param name="Statements">How many statements it has.</param>
/// <param name="Taken">Of these, how many claim something.</param>
/// <param name="Proposed">How many claim nothing yet, but have a reading to choose.</param>
/// <param name="Text">How many stay text: they are weighed by hand, and still tell the leads apart.</param>
public sealed record KeyMeter(int Statements, int Taken, int Proposed, int Text);

/// <summary>A reading that is offered for a clause.</summary>
/// <param name="Claims">What the clause claims then; the statement's other claims stay.</param>
/// <param name="InWords">The same in words.</param>
public sealed record ClauseChoice(IReadOnlyList<StatementClaim> Claims, string InWords);

/// <summary>A clause that can be read in several ways, or by passing over words.</summary>
/// <param name="At">Index of its first character in the statement.</param>
/// <param name="Length">How many characters.</param>
/// <param name="Choices">The readings that are offered, the likeliest first.</param>
public sealed record OpenClause(int At, int Length, IReadOnlyList<ClauseChoice> Choices);

/// <summary>A statement with its reading.</summary>
/// <param name="Couplet">Label of its couplet.</param>
/// <param name="Lead">Place of its lead, from 0.</param>
/// <param name="Index">Its place in the lead, from 0.</param>
/// <param name="Reading">The reading.</param>
/// <param name="InWords">What it claims, in words; empty where it stays text.</param>
/// <param name="Open">Its clauses to be decided; empty once a person has looked it over.</param>
/// <param name="Helps">How many ends of the key hang on its couplet: what most hang on is asked first.</param>
public sealed record ReadStatement(
    string Couplet,
    int Lead,
    int Index,
    StatementReading Reading,
    string InWords,
    IReadOnlyList<OpenClause> Open,
    int Helps
);

/// <summary>A word that isn't known, and how many clauses hang on it.</summary>
/// <param name="Word">The word.</param>
/// <param name="Clauses">Clauses in which it alone isn't known.</param>
public sealed record UnknownWord(string Word, int Clauses);

/// <summary>A key as its statements are read.</summary>
/// <param name="Meter">How much of it is weighed.</param>
/// <param name="Statements">Its statements in their order.</param>
/// <param name="Words">Words that would open most clauses, those first.</param>
/// <param name="Problems">What can't be meant so, couplet by couplet.</param>
public sealed record ReadKey(
    KeyMeter Meter,
    IReadOnlyList<ReadStatement> Statements,
    IReadOnlyList<UnknownWord> Words,
    IReadOnlyList<CoupletProblem> Problems
)
{
    // Nobody teaches more words at one sitting.
    private const int MostWords = 12;

    /// <summary>Whether these are all of its couplets.</summary>
    public bool IsWhole { get; init; } = true;

    /// <summary>Reads a key version.</summary>
    /// <param name="shelf">The keys.</param>
    /// <param name="version">The version.</param>
    /// <param name="first">So many couplets alone; 0: all.</param>
    public static ReadKey Of(BenchShelf shelf, KeyVersion version, int first = 0)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(version);
        var statements = new List<ReadStatement>();
        var problems = new List<CoupletProblem>();
        foreach (var couplet in first > 0 ? version.Key.Couplets.Take(first) : version.Key.Couplets)
        {
            var leads = shelf.Proposed(version, couplet.Label);
            problems.AddRange(CoupletProblem.Of(couplet, leads, shelf.Table.Find));
            var ends = shelf.EndsBehind(version, couplet.Label);
            for (var l = 0; l < leads.Count; l++)
            {
                for (var s = 0; s < leads[l].Count; s++)
                    statements.Add(Of(shelf, couplet.Label, l, s, leads[l][s], ends));
            }
        }
        var taken = statements.Count(s => s.Reading.Claims.Count > 0 || s.Reading.IsCorrected && s.InWords.Length > 0);
        var proposed = statements.Count(s => s.Reading.Claims.Count == 0 && s.Open.Count > 0);
        var words = shelf.UnknownWords(version, statements.Where(s => !s.Reading.IsCorrected).Select(s => s.Reading));
        return new(
            new(statements.Count, taken, proposed, statements.Count - taken - proposed),
            statements,
            [
                .. words
                    .OrderByDescending(w => w.Value)
                    .ThenBy(w => w.Key, StringComparer.Ordinal)
                    .Take(MostWords)
                    .Select(w => new UnknownWord(w.Key, w.Value)),
            ],
            problems
        )
        {
            IsWhole = first <= 0 || first >= version.Key.Couplets.Count,
        };
    }

    private static ReadStatement Of(BenchShelf shelf, string couplet, int lead, int index, StatementReading reading, int ends)
    {
        Character? Find(string id) => shelf.Table.Find(id);
        var open = reading.IsCorrected
            ? []
            : (reading.Clauses ?? [])
                .Where(c => c.Kind == ClauseKind.Proposed)
                .Select(c => new OpenClause(
                    c.At,
                    c.Length,
                    [
                        // What contradicts a claim of the statement itself is no choice.
                        .. c
                            .Proposals.Where(p => !p.Any(x => reading.Claims.Any(r => r.Character == x.Character)))
                            .Select(p => new ClauseChoice(p, ClaimWords.Of(p, Find))),
                    ]
                ))
                .Where(c => c.Choices.Count > 0)
                .ToList();
        return new(couplet, lead, index, reading, ClaimWords.Of(reading.Claims, Find), open, ends);
    }
}

/// <summary>A word that is about to be taught.</summary>
/// <param name="Term">The word with its meaning.</param>
/// <param name="Hash">Hash of the key that it is taught at; empty where it is none.</param>
public sealed record TeachingPreviewRequest(TaughtTerm Term, string Hash = "") : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => Hash.Length > 0 ? [Hash] : [];

    /// <summary>Looks through the keys for what it changes.</summary>
    public TeachingPreview Look(BenchShelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        return TeachingPreview.Of(shelf, Term, shelf.Keys.Find(Hash));
    }
}

/// <summary>Taxa that keys may part.</summary>
/// <param name="Names">Their names; at least two.</param>
/// <param name="Sheet">Looks at the plant in hand; left out: none.</param>
public sealed record KeysPartingRequest(IReadOnlyList<string> Names, IReadOnlyList<Observation>? Sheet = null) : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => [];

    /// <summary>Looks through the keys.</summary>
    /// <exception cref="RequestException">These are too few names, or too many.</exception>
    public KeyParting Find(BenchShelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        if (Names.Count is < Contrast.Fewest or > Contrast.Most)
            throw new RequestException("names", $"Name {Contrast.Fewest} to {Contrast.Most} taxa.");
        return KeyParting.Of(shelf, Names, Sheet ?? []);
    }
}

/// <summary>Looks at a plant, typed in words.</summary>
/// <param name="Text">The words: "lvs glabrous beneath, petiole 12 14 15 mm".</param>
/// <param name="Unit">Unit of several numbers without one: mm, cm, m; empty: they are counted.</param>
public sealed record ReadLooksRequest(string Text, string Unit = "")
{
    // Nobody types more about one organ at a time.
    private const int Longest = 2_000;

    /// <summary>Reads them.</summary>
    /// <exception cref="RequestException">The text is too long.</exception>
    public TypedLooks Read(Botany.BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(botany);
        if (Text.Length > Longest)
            throw new RequestException("text", $"Type up to {Longest} characters at once.");
        return LookReader.Read(Text, botany, Unit);
    }
}

/// <summary>Descriptions in prose, pasted.</summary>
/// <param name="Text">The text: a paragraph per taxon, each beginning with its name.</param>
public sealed record ReadDescriptionsRequest(string Text)
{
    /// <summary>Nobody pastes more letters at once.</summary>
    public const int Longest = 2_000_000;

    /// <summary>Reads them.</summary>
    /// <exception cref="RequestException">The text is too long.</exception>
    public DescribedInProse Read(Botany.BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(botany);
        if (Text.Length > Longest)
            throw new RequestException("text", $"Paste up to {Longest} characters at once.");
        var read = new DescriptionReader(botany).Read(Text);
        return new(
            [
                .. read.Taxa.Select(t => new TaxonInProse(
                    t,
                    [.. t.Statements.Select(s => new StatementInProse(s, ClaimWords.Of(s.Claims, botany.Compose)))]
                )),
            ],
            read.Problems
        );
    }
}

/// <summary>A statement of a description, and what it says in words.</summary>
/// <param name="Reading">The reading.</param>
/// <param name="InWords">What was taken, in words; empty where it stays text.</param>
public sealed record StatementInProse(StatementReading Reading, string InWords);

/// <summary>A taxon with its description as it was read.</summary>
/// <param name="Taxon">The taxon.</param>
/// <param name="Statements">Its statements, with what was taken of each.</param>
public sealed record TaxonInProse(ReadTaxon Taxon, IReadOnlyList<StatementInProse> Statements);

/// <summary>Descriptions as they were read.</summary>
/// <param name="Taxa">The taxa.</param>
/// <param name="Problems">What couldn't be made out, as sentences.</param>
public sealed record DescribedInProse(IReadOnlyList<TaxonInProse> Taxa, IReadOnlyList<string> Problems);
