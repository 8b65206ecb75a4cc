using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Language;
using Garten.Core.Quantities;

namespace Garten.Core.Contracts;

/// <summary>One key of a checked text, in short.</summary>
/// <param name="Title">Its title; empty where the text gives none.</param>
/// <param name="Layout"><c>bracketed</c> or <c>indented</c>.</param>
/// <param name="Couplets">How many couplets it has.</param>
/// <param name="Taxa">The names it can end at, without authorship, in the order of the text.</param>
public sealed record CheckedKey(string Title, KeyLayout Layout, int Couplets, IReadOnlyList<string> Taxa);

/// <summary>What the check of a key text found.</summary>
public sealed record KeyCheckResponse(IReadOnlyList<CheckedKey> Keys, IReadOnlyList<KeyProblem> Problems)
{
    /// <summary>The reading in short.</summary>
    public static KeyCheckResponse Of(KeyReading reading)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return new(
            [.. reading.Keys.Select(k => new CheckedKey(k.Title, k.Layout, k.Couplets.Count, [.. k.Taxa().Select(t => t.Name)]))],
            reading.Problems
        );
    }
}

/// <summary>A text to read, as the browser's worker takes it.</summary>
public sealed record ReadKeyTextRequest(string Text);

/// <summary>What walks in the worker go through.</summary>
/// <param name="Versions">Key versions, newest first.</param>
/// <param name="Taxa">The taxa of the flora.</param>
/// <param name="Table">Characters, descriptions and seasons.</param>
/// <param name="Taught">Terms that persons have taught.</param>
/// <param name="Corrected">Readings of statements that persons have set.</param>
/// <param name="Kept">Older readings that answers cite; left out: none.</param>
public sealed record Shelf(
    IReadOnlyList<KeyVersion> Versions,
    IReadOnlyList<Taxon> Taxa,
    CharacterTable Table,
    IReadOnlyList<TaughtTerm> Taught,
    IReadOnlyList<CorrectedStatement> Corrected,
    IReadOnlyList<KeptReading>? Kept = null
)
{
    /// <summary>How its versions are read now, as far as the host that made it has worked it out.</summary>
    [JsonIgnore]
    public IReadOnlyList<ReadyReading> Read { get; init; } = [];

    /// <summary>Hash of the vocabulary by which they are read so; empty where none is.</summary>
    [JsonIgnore]
    public string ReadBy { get; init; } = "";

    /// <summary>Made ready for the Bench. What was read by another vocabulary than the one at hand is read anew.</summary>
    /// <param name="botany">Makes characters of parts and qualities, where the table hasn't its own; null: it makes none.</param>
    public BenchShelf Ready(BotanyIndex? botany = null)
    {
        var table = Table with { Botany = Table.Botany ?? botany };
        var read = ReadBy.Length > 0 && table.Botany?.Version == ReadBy ? Read : [];
        return new(new KeyShelf(Versions, Taxa), table, Taxa, Taught, Corrected, Kept, read);
    }

    /// <summary>The same with keys that wait on the device to be sent, each as the newest version of its title; those that are here already
    /// are passed over.</summary>
    /// <param name="keys">The keys, oldest first.</param>
    public Shelf With(IReadOnlyList<KeyVersion> keys)
    {
        ArgumentNullException.ThrowIfNull(keys);
        var known = Versions.Select(v => v.Hash).ToHashSet(StringComparer.Ordinal);
        return keys.All(k => known.Contains(k.Hash))
            ? this
            : this with
            {
                Versions = [.. keys.Reverse().Where(k => known.Add(k.Hash)), .. Versions],
            };
    }

    /// <summary>The same with those key versions alone that some lead to, in any number of steps; these included.</summary>
    /// <param name="hashes">Hashes of the versions to start from.</param>
    public Shelf ReachedFrom(IEnumerable<string> hashes)
    {
        ArgumentNullException.ThrowIfNull(hashes);
        var all = new KeyShelf(Versions);
        HashSet<string> reached = [];
        var ahead = new Queue<KeyVersion>(hashes.Select(all.Find).OfType<KeyVersion>());
        while (ahead.TryDequeue(out var version))
        {
            if (!reached.Add(version.Hash))
                continue;
            foreach (var lead in version.Key.Couplets.SelectMany(c => c.Leads))
            {
                if (lead.Destination is { Kind: DestinationKind.Key, Target: var other })
                    all.Resolve(other, version).ToList().ForEach(ahead.Enqueue);
            }
        }
        return this with { Versions = [.. Versions.Where(v => reached.Contains(v.Hash))] };
    }
}

/// <summary>A key version by its hash alone.</summary>
/// <param name="Hash">Hash of the version.</param>
/// <param name="Reading">Number of its newest reading; 0 before it was read.</param>
public sealed record ShelvedVersion(string Hash, int Reading);

/// <summary>What a page needs of a shelf while the core holds it whole.</summary>
/// <param name="Versions">The key versions.</param>
/// <param name="Taxa">The taxa of the flora.</param>
/// <param name="Characters">Its characters.</param>
public sealed record ShelfInShort(IReadOnlyList<ShelvedVersion> Versions, IReadOnlyList<Taxon> Taxa, IReadOnlyList<Character> Characters)
{
    /// <summary>A shelf in short.</summary>
    public static ShelfInShort Of(Shelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        return new([.. shelf.Versions.Select(v => new ShelvedVersion(v.Hash, v.Reading))], shelf.Taxa, shelf.Table.Characters);
    }
}

/// <summary>A walk through keys that the worker holds on its shelf.</summary>
/// <param name="Start">Hash of the version to start with.</param>
/// <param name="Answers">The answers given so far.</param>
public sealed record WalkRequest(string Start, IReadOnlyList<TrailAnswer> Answers) : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => [.. Answers.Select(a => a.Cited), Start];

    /// <summary>Follows the keys of a shelf.</summary>
    /// <exception cref="RequestException">The key to start with isn't on the shelf.</exception>
    public WalkState Follow(BenchShelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        return KeyWalk.Follow(shelf.Keys, OnShelf(shelf, Start), Answers);
    }

    internal static string OnShelf(BenchShelf shelf, string start) =>
        shelf.Keys.Find(start) is not null
            ? start
            : throw new RequestException("start", "The key version to start with isn't known here.")
            {
                Code = "trail.version",
                IsUnknown = true,
            };
}

/// <summary>A couplet of a key version.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="Couplet">Label of the couplet.</param>
public sealed record CoupletName(string KeyVersion, string Couplet);

/// <summary>A walk with a sheet of evidence.</summary>
/// <param name="Start">Hash of the version to start with.</param>
/// <param name="Answers">The answers given so far.</param>
/// <param name="Observations">The looks at the plant.</param>
/// <param name="Hand">Statements weighed by hand.</param>
/// <param name="Day">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Reopened">An answered couplet that is looked at again: its verdict comes along with those of the open ones.</param>
public sealed record BenchRequest(
    string Start,
    IReadOnlyList<TrailAnswer> Answers,
    IReadOnlyList<Observation> Observations,
    IReadOnlyList<HandWeighing> Hand,
    string Day,
    CoupletName? Reopened = null
) : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => [.. Answers.Select(a => a.Cited), Start];

    /// <summary>Follows the keys of a shelf.</summary>
    /// <exception cref="RequestException">The day is none, the key to start with isn't on the shelf, or a look can't be
    /// weighed.</exception>
    public BenchState Follow(BenchShelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        var day = RequestDay.Of(Day, "day");
        var start = WalkRequest.OnShelf(shelf, Start);
        for (var i = 0; i < Observations.Count; i++)
        {
            if (EvidenceSheet.Problem(Observations[i], shelf.Table.Find(Observations[i].Character), DateOnly.MaxValue) is { } wrong)
                throw new RequestException(string.Create(CultureInfo.InvariantCulture, $"observations[{i}]"), wrong)
                {
                    Code = "observation.invalid",
                };
        }
        return KeyBench.Follow(shelf, start, Answers, Observations, Hand, day, s =>
            Reopened is { } reopened && reopened.KeyVersion == s.KeyVersion && reopened.Couplet == s.Couplet
        );
    }
}

/// <summary>What awaits one who starts keys today.</summary>
/// <param name="Day">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Tools">What is at hand besides the eye.</param>
/// <param name="Most">The most handling that is allowed.</param>
/// <param name="Entries">Hashes of the keys that stand by themselves: of these a better one may be proposed.</param>
public sealed record OutlookRequest(string Day, IReadOnlyList<Tool> Tools, Handling Most, IReadOnlyList<string>? Entries = null)
    : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => [];

    /// <summary>Looks ahead through every key of a shelf that has a couplet.</summary>
    public IReadOnlyList<KeyOutlook> Look(BenchShelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        var day = RequestDay.Of(Day, "day");
        return KeyOutlook.WithBetter(KeyOutlook.OfAll(shelf, day, Tools, Most), Entries ?? []);
    }
}

/// <summary>Readings as typed.</summary>
/// <param name="Text">The line.</param>
/// <param name="Character">Id of the character.</param>
/// <param name="Unit">Unit of numbers without one: mm, cm, m, in, ft.</param>
/// <param name="Calibrated">The object whose multiples they are; null for a ruler.</param>
/// <param name="Objects">The objects of one's own that rough measures may name: "under one thumb".</param>
public sealed record MeasureRequest(
    string Text,
    string Character,
    string Unit,
    CalibratedObject? Calibrated,
    IReadOnlyList<CalibratedObject>? Objects = null
) : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => [];

    // Readings beyond three times the largest that is known of any plant of the flora are asked about.
    private const double Unheard = 3;

    /// <summary>Reads them for a character of a shelf's table, or of the flora that is sifted.</summary>
    public MeasureResponse Read(BenchShelf shelf, FloraColumns? flora = null)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        var column = flora?.Find(Character);
        if ((shelf.Table.Find(Character) ?? column?.Character) is not { IsQuantity: true } character)
            return new(new ReadingLine([], [new ReadingProblem("This character isn't measured.", 0)]), null, "");
        var largest = shelf
            .Descriptions.SelectMany(d => d.Characters)
            .Where(c => c.Character == Character)
            .SelectMany(c => new[] { c.Range?.HighExtreme ?? c.Range?.High, c.Shade?.HighExtreme ?? c.Shade?.High })
            .Append(column?.Described?.High)
            .Max();
        var rough =
            character.Kind == CharacterKind.Length ? RoughMeasure.Read(Text, Objects ?? [], MeasureUnit.Named(Unit), Calibrated) : null;
        var line = rough
            ?? ReadingText.Read(
                Text,
                character.Quantity,
                MeasureUnit.Named(Unit),
                Calibrated,
                largest is { } l ? l * Unheard : double.PositiveInfinity
            );
        var sample = Quantities.Sample.Of(line.Readings);
        return new(line, sample, sample is null ? "" : Words(sample, character.Quantity));
    }

    private static string Words(Sample sample, QuantityKind kind)
    {
        string Show(double value) => ReadingText.Show(value, kind);
        var words = $"n {sample.Count} · mean {Show(sample.Mean)}";
        if (sample.Count > 1)
            words += $" · {Show(sample.Least)} to {Show(sample.Largest)}";
        return sample.Low is { } low && sample.High is { } high
            ? $"{words} · 95 % of the mean {Show(Math.Max(0, low))} to {Show(high)}"
            : words;
    }
}

/// <summary>Readings as understood, and what they say together.</summary>
/// <param name="Line">The readings and what is wrong.</param>
/// <param name="Sample">n, mean, range and interval; null where no reading counts.</param>
/// <param name="Shown">The same in words.</param>
public sealed record MeasureResponse(ReadingLine Line, Sample? Sample, string Shown);

/// <summary>The statements of a key version.</summary>
/// <param name="Hash">Hash of the version.</param>
public sealed record StatementsRequest(string Hash) : IShelfRequest
{
    IEnumerable<string> IShelfRequest.Versions => [Hash];

    /// <summary>Reads them; none where the version isn't on the shelf.</summary>
    public IReadOnlyList<CoupletReadings> Find(BenchShelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        return shelf.Keys.Find(Hash) is { } version ? CoupletReadings.Of(shelf, version) : [];
    }
}

/// <summary>A key as the list shows it.</summary>
/// <param name="Hash">Hash of its newest version.</param>
/// <param name="Title">Its title.</param>
/// <param name="Version">Number of the newest version, from 1.</param>
/// <param name="Couplets">How many couplets it has.</param>
/// <param name="Taxa">How many taxa it can end at, not counting those of keys it hands over to.</param>
/// <param name="HandsOverTo">The keys it hands over to, as its leads name them.</param>
/// <param name="EnteredFrom">Titles of the keys that hand over to it; empty for a key to begin with.</param>
/// <param name="Notes">Lines below its title.</param>
/// <param name="AddedAt">When the version was saved.</param>
/// <param name="Source">Where its text is from; null where nothing is said of it.</param>
public sealed record KeySummary(
    string Hash,
    string Title,
    int Version,
    int Couplets,
    int Taxa,
    IReadOnlyList<string> HandsOverTo,
    IReadOnlyList<string> EnteredFrom,
    IReadOnlyList<string> Notes,
    DateTimeOffset AddedAt,
    TextSource? Source = null
)
{
    /// <summary>Its couplets and ends as they are drawn; of a large key its beginning.</summary>
    public IReadOnlyList<KeyNode> Shape { get; init; } = [];

    /// <summary>A key as the list shows it; what it is entered from is found among others (<see cref="Entered"/>).</summary>
    /// <param name="hash">Hash of the version.</param>
    /// <param name="version">Its number, from 1.</param>
    /// <param name="key">The key.</param>
    /// <param name="addedAt">When it was saved.</param>
    public static KeySummary Of(string hash, int version, Key key, DateTimeOffset addedAt)
    {
        ArgumentNullException.ThrowIfNull(key);
        var handsOver = key
            .Couplets.SelectMany(c => c.Leads)
            .Where(l => l.Destination?.Kind == DestinationKind.Key)
            .Select(l => l.Destination!.Target)
            .Distinct(StringComparer.Ordinal);
        return new KeySummary(hash, key.Title, version, key.Couplets.Count, key.Taxa().Count(), [.. handsOver], [], key.Notes, addedAt)
        {
            Shape = KeyShape.Of(key),
        };
    }

    /// <summary>The same keys with those that hand over to each.</summary>
    public static IReadOnlyList<KeySummary> Entered(IReadOnlyList<KeySummary> keys)
    {
        ArgumentNullException.ThrowIfNull(keys);
        return
        [
            .. keys.Select(k =>
                k with
                {
                    EnteredFrom =
                    [
                        .. keys.Where(o => o != k && o.HandsOverTo.Any(to => KeyTitle.IsNamedBy(k.Title, to))).Select(o => o.Title),
                    ],
                }
            ),
        ];
    }
}

/// <summary>A version of a key with its text as it was typed.</summary>
public sealed record KeyDetail(
    string Hash,
    string Title,
    int Version,
    Key Key,
    string SourceText,
    IReadOnlyList<KeyVersionSummary> Versions,
    TextSource? Source = null
);
