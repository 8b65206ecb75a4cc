using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Language;
using Garten.Core.Quantities;

namespace Garten.Core.Keys;

/// <summary>Keys, flora and glossary made ready for the Bench: readings of statements and descriptions by name are worked out
/// once.</summary>
public sealed class BenchShelf
{
    // Its lexicon takes an interpreted core the better part of a second: it is made at the first statement that is read.
    private readonly Lazy<KeyReader> _reader;

    // Words that are taught for one book alone are read in its keys alone.
    private readonly Dictionary<string, KeyReader> _readers = new(StringComparer.Ordinal);
    private readonly IReadOnlyList<TaughtTerm> _taught;
    private readonly IReadOnlyList<CorrectedStatement>? _corrected;
    private readonly Dictionary<string, (bool IsOwn, TextContext? Of)> _contexts = new(StringComparer.Ordinal);
    private readonly Dictionary<string, Dictionary<string, IReadOnlyList<IReadOnlyList<StatementReading>>>> _readings = new(
        StringComparer.Ordinal
    );
    private readonly Dictionary<string, ReadyReading> _ready;
    private readonly ILookup<string, string> _forms;
    private readonly HashSet<string> _described;
    private readonly Lazy<HashSet<string>> _inGlossary;

    /// <summary>Creates an instance of this type.</summary>
    /// <param name="keys">The key versions.</param>
    /// <param name="table">Characters, descriptions as written, seasons.</param>
    /// <param name="taxa">The taxa of the flora.</param>
    /// <param name="taught">Terms that a person has taught.</param>
    /// <param name="corrected">Readings that a person has set.</param>
    /// <param name="kept">Readings that answers cite, in place of those of now.</param>
    /// <param name="ready">Readings of now that are worked out already; of what they don't hold each is worked out when it is first
    /// wanted.</param>
    public BenchShelf(
        KeyShelf keys,
        CharacterTable table,
        IReadOnlyList<Taxon> taxa,
        IReadOnlyList<TaughtTerm>? taught = null,
        IReadOnlyList<CorrectedStatement>? corrected = null,
        IReadOnlyList<KeptReading>? kept = null,
        IReadOnlyList<ReadyReading>? ready = null
    )
    {
        ArgumentNullException.ThrowIfNull(table);
        ArgumentNullException.ThrowIfNull(taxa);
        Keys = keys;
        Taxa = taxa;
        Table = table;
        Descriptions = CharacterTable.Complete(table.Descriptions, taxa);
        Derived = table.Botany is { } botany ? new DerivedDescriptions(botany, table.Characters) : null;
        Likelihood = new Likelihood(Descriptions, derived: Derived);
        _described = [.. Descriptions.Select(d => d.Taxon)];
        _forms = taxa.Where(t => t.Rank is "cultivar" or "form").ToLookup(t => t.Parent, t => t.Id, StringComparer.Ordinal);
        _inGlossary = new(() =>
            [
                .. table
                    .Descriptions.Where(d => !d.IsProvisional && d.Characters.Any(c => _reader!.Value.IsOfGlossary(c.Character)))
                    .Select(d => d.Taxon),
            ]
        );
        (_taught, _corrected) = (taught ?? [], corrected);
        foreach (var reading in kept ?? [])
            _readings[reading.Hash] = reading.Couplets.ToDictionary(c => c.Couplet, c => c.Leads, StringComparer.Ordinal);
        _ready = (ready ?? []).ToDictionary(r => r.Hash, StringComparer.Ordinal);
        _reader = new(() => new KeyReader(table, [.. _taught.Where(t => t.Book.Length == 0)], corrected));
    }

    private KeyReader ReaderOf(KeyVersion version)
    {
        var book = KeyTitle.Plain(version.TaughtFor);
        if (_readers.TryGetValue(book, out var reader))
            return reader;
        List<TaughtTerm> own = [.. _taught.Where(t => t.Book.Length == 0 || KeyTitle.Plain(t.Book) == book)];
        return _readers[book] = own.Exists(t => t.Book.Length > 0) ? new KeyReader(Table, own, _corrected) : _reader.Value;
    }

    /// <summary>How what isn't described follows from what is; null where no vocabulary is at hand.</summary>
    internal DerivedDescriptions? Derived { get; }

    /// <summary>The key versions.</summary>
    public KeyShelf Keys { get; }

    /// <summary>The taxa of the flora.</summary>
    public IReadOnlyList<Taxon> Taxa { get; }

    /// <summary>Characters and seasons.</summary>
    public CharacterTable Table { get; }

    /// <summary>The descriptions of the flora's species, hybrids and forms, completed.</summary>
    public IReadOnlyList<TaxonDescription> Descriptions { get; }

    /// <summary>The weigher over the whole flora.</summary>
    public Likelihood Likelihood { get; }

    private readonly Dictionary<int, OutcomeTable> _outcomes = [];

    /// <summary>The flora's descriptions by character.</summary>
    internal FloraColumns Columns => field ??= FloraColumns.Of(Table.Characters, Descriptions);

    /// <summary>What a look at a character of the flora can show; worked out once.</summary>
    internal OutcomeTable OutcomesOf(int column) =>
        _outcomes.TryGetValue(column, out var known)
            ? known
            : _outcomes[column] = OutcomeTable.Of(Columns.Columns[column], SiftOptions.Default);

    private Dictionary<string, TaxonFacts> Facts =>
        field ??= Taxa.Where(t => t.Facts is not null).ToDictionary(t => t.Id, t => t.Facts!, StringComparer.Ordinal);

    /// <summary>What else is known of a taxon.</summary>
    internal TaxonFacts FactsOf(string taxon) => Facts.GetValueOrDefault(taxon) ?? TaxonFacts.None;

    /// <summary>The weigher over the whole flora and some more taxa.</summary>
    internal Likelihood With(IReadOnlyList<TaxonDescription> more) =>
        more.Count == 0 ? Likelihood : new Likelihood([.. Descriptions, .. more], derived: Derived);

    private readonly Dictionary<(string Character, string First, string Second), double> _separations = [];

    // How well a character separates two taxa: of the flora's own worked out once.
    internal double Separation(Character character, string first, string second, WeighedSheet sheet)
    {
        double Of() =>
            Identification.Separation.Of(
                character,
                sheet.Description(first, character.Id),
                sheet.Description(second, character.Id),
                sheet.Likelihood
            );
        if (!Describes(first) || !Describes(second))
            return Of();
        const int mostKept = 200_000;
        if (_separations.TryGetValue((character.Id, first, second), out var known))
            return known;
        if (_separations.Count >= mostKept)
            _separations.Clear();
        return _separations[(character.Id, first, second)] = Of();
    }

    // Made once for a start and the versions that a trail has followed; few of them are in use at a time.
    private const int MostMaps = 50;
    private readonly Dictionary<string, KeyMap> _maps = new(StringComparer.Ordinal);

    internal KeyMap Map(string start, IReadOnlySet<string> followed)
    {
        var name = start + "|" + string.Join('|', followed.Order(StringComparer.Ordinal));
        if (_maps.TryGetValue(name, out var map))
            return map;
        if (_maps.Count >= MostMaps)
            _maps.Clear();
        return _maps[name] = new KeyMap(Keys, start, followed);
    }

    private readonly Dictionary<KeyMap, Dictionary<KeyPlace, AnswerAccount>> _accounts = new(ReferenceEqualityComparer.Instance);

    // What an answer says of each end: worked out when a couplet is first answered.
    internal AnswerAccount Account(KeyMap map, KeyPlace place)
    {
        if (!_accounts.TryGetValue(map, out var own))
        {
            if (_accounts.Count >= MostMaps)
                _accounts.Clear();
            _accounts[map] = own = [];
        }
        return own.TryGetValue(place, out var account) ? account : own[place] = AnswerAccount.Of(this, map, place);
    }

    private readonly Dictionary<KeyMap, string[]> _usable = new(ReferenceEqualityComparer.Instance);

    // Of a flora with ferns and trees in it, a key to trees has no use for fronds.
    internal string[] Usable(KeyMap map, IEnumerable<string> taxa, Likelihood likelihood)
    {
        if (_usable.TryGetValue(map, out var known))
            return known;
        if (_usable.Count >= MostMaps)
            _usable.Clear();
        var behind = taxa.ToList();
        // Of plants that the flora describes it says what there is to see; reading every statement of a large key for that would take a
        // second.
        var spoken = behind.TrueForAll(Describes)
            ? []
            : map
                .Order.SelectMany(p => Readings(Keys.Find(p.Version)!, p.Couplet))
                .SelectMany(l => l)
                .SelectMany(s => s.Claims)
                .Select(c => c.Character)
                .ToHashSet(StringComparer.Ordinal);
        return _usable[map] = [
            .. Table
                .Characters.Select(c => c.Id)
                .Where(c => spoken.Contains(c) || behind.Exists(t => likelihood.Described(c).GetValueOrDefault(t) is { Applies: true })),
        ];
    }

    /// <summary>Whether the flora describes a taxon.</summary>
    public bool Describes(string taxon) => _described.Contains(taxon);

    /// <summary>Cultivated and sport forms of a taxon.</summary>
    public IEnumerable<string> FormsOf(string taxon) => _forms[taxon];

    /// <summary>Per lead of a couplet, the readings of its statements; none of a couplet that the key hasn't.</summary>
    public IReadOnlyList<IReadOnlyList<StatementReading>> Readings(KeyVersion version, string couplet)
    {
        ArgumentNullException.ThrowIfNull(version);
        if (!_readings.TryGetValue(version.Hash, out var own))
            _readings[version.Hash] = own = new(StringComparer.Ordinal);
        if (own.TryGetValue(couplet, out var read))
            return read;
        return own[couplet] = _ready.GetValueOrDefault(version.Hash)?.Find(couplet) ?? Read(version, couplet, proposes: false);
    }

    /// <summary>Ids of the characters of which one has to be seen to answer a couplet; empty of one that can be answered whatever can be
    /// seen.</summary>
    internal IReadOnlyList<string> Wanted(KeyVersion version, string couplet) =>
        _readings.GetValueOrDefault(version.Hash)?.ContainsKey(couplet) != true
        && _ready.GetValueOrDefault(version.Hash)?.Wanted(couplet) is { } known
            ? known
            : ReadyReading.Wanted(Readings(version, couplet));

    /// <summary>The readings of a whole version as they are kept: without what could be chosen.</summary>
    public IReadOnlyList<CoupletReadings> WholeReading(KeyVersion version)
    {
        ArgumentNullException.ThrowIfNull(version);
        return Trimmed(version, c => Readings(version, c.Label));
    }

    /// <summary>The same by the words of the flora's glossary alone: how keys were read before there was a grammar.</summary>
    public IReadOnlyList<CoupletReadings> WholeReadingByGlossary(KeyVersion version)
    {
        ArgumentNullException.ThrowIfNull(version);
        return Trimmed(version, c => [.. c.Leads.Select(l => _reader.Value.ReadByGlossary(l.Statements))]);
    }

    private static IReadOnlyList<CoupletReadings> Trimmed(
        KeyVersion version,
        Func<Couplet, IReadOnlyList<IReadOnlyList<StatementReading>>> read
    ) =>
        [
            .. version.Key.Couplets.Select(c => new CoupletReadings(
                c.Label,
                [.. read(c).Select(l => (IReadOnlyList<StatementReading>)[.. l.Select(s => s with { Clauses = null })])]
            )),
        ];

    /// <summary>The same with the readings that could be chosen; worked out each time.</summary>
    public IReadOnlyList<IReadOnlyList<StatementReading>> Proposed(KeyVersion version, string couplet) =>
        Read(version, couplet, proposes: true);

    private IReadOnlyList<IReadOnlyList<StatementReading>> Read(KeyVersion version, string couplet, bool proposes)
    {
        ArgumentNullException.ThrowIfNull(version);
        if (!_contexts.TryGetValue(version.Hash, out var of))
            _contexts[version.Hash] = of = (IsOwn(version), ReaderOf(version).ContextOf(version.Key));
        return ReaderOf(version).Read([.. (version.Find(couplet)?.Leads ?? []).Select(l => l.Statements)], of.IsOwn, of.Of, proposes);
    }

    /// <summary>The readings of a couplet if a word were taught besides those that are.</summary>
    public IReadOnlyList<IReadOnlyList<StatementReading>> WithTaught(KeyVersion version, string couplet, TaughtTerm term)
    {
        ArgumentNullException.ThrowIfNull(version);
        ArgumentNullException.ThrowIfNull(term);
        var book = KeyTitle.Plain(version.TaughtFor);
        if (_trial is not { } trial || trial.Term != term || trial.Book != book)
        {
            List<TaughtTerm> own = [.. _taught.Where(t => t.Book.Length == 0 || KeyTitle.Plain(t.Book) == book), term];
            _trial = trial = (term, book, new KeyReader(Table, own, _corrected));
        }
        return trial.Reader.Read(
            [.. (version.Find(couplet)?.Leads ?? []).Select(l => l.Statements)],
            IsOwn(version),
            trial.Reader.ContextOf(version.Key)
        );
    }

    private (TaughtTerm Term, string Book, KeyReader Reader)? _trial;

    /// <summary>What a word is to the grammar already, in words; empty where it isn't known.</summary>
    public string WhatIs(string word) => _reader.Value.WhatIs(word);

    /// <summary>How many ends of its key hang on a couplet.</summary>
    public int EndsBehind(KeyVersion version, string couplet)
    {
        ArgumentNullException.ThrowIfNull(version);
        var map = Map(version.Hash, new HashSet<string>(StringComparer.Ordinal));
        return map.Behind(new KeyPlace(version.Hash, couplet)).Length;
    }

    /// <summary>Words of a key that aren't known, with the number of clauses in which each alone isn't.</summary>
    public IReadOnlyDictionary<string, int> UnknownWords(KeyVersion version, IEnumerable<StatementReading> readings)
    {
        ArgumentNullException.ThrowIfNull(version);
        return ReaderOf(version).UnknownWords(readings);
    }

    // Whether a key, with those that it goes on to, is one to taxa that a flora describes in its own glossary's characters: it speaks in
    // the flora's words then. What was described by the grammar, from a key or from prose, has no words of its own.
    private bool IsOwn(KeyVersion version)
    {
        const double half = 0.5;
        var map = Map(version.Hash, new HashSet<string>(StringComparer.Ordinal));
        var ends = map.Behind(map.Start);
        return ends.Length > 0 && ends.Count(e => map.Ids[e] is { } id && _inGlossary.Value.Contains(id)) >= half * ends.Length;
    }

    /// <summary>
    /// Descriptions made of a key's own statements on the ways to each end: what its leads claim of it. Provisional; used where the flora
    /// has no description of its own.
    /// </summary>
    /// <param name="start">Hash of the version to start with.</param>
    /// <returns>By name as the keys give it.</returns>
    public IReadOnlyDictionary<string, TaxonDescription> Provisional(string start) =>
        Ways(start).ToDictionary(f => f.Key, f => new TaxonDescription(f.Key, [.. Describe(f.Value)], true), StringComparer.Ordinal);

    /// <summary>The same of what is claimed on every way to an end: a key that hands over to one that holds more says nothing else for
    /// sure.</summary>
    public IReadOnlyDictionary<string, TaxonDescription> OnEveryWay(string start) =>
        Ways(start)
            .ToDictionary(
                f => f.Key,
                f => new TaxonDescription(
                    f.Key,
                    [.. Describe(f.Value).Where(c => f.Value.TrueForAll(w => w.ContainsKey(c.Character)))],
                    true
                ),
                StringComparer.Ordinal
            );

    // Per end what the leads claim on each way to it.
    private Dictionary<string, List<Dictionary<string, StatementClaim>>> Ways(string start)
    {
        var map = Map(start, new HashSet<string>(StringComparer.Ordinal));
        var found = new Dictionary<string, List<Dictionary<string, StatementClaim>>>(StringComparer.Ordinal);
        // A taxon that is reached by very many ways is described well enough by some of them.
        const int mostWays = 20_000;
        var ways = new Stack<(KeyPlace Place, Dictionary<string, StatementClaim> Claims)>([(map.Start, new(StringComparer.Ordinal))]);
        for (var n = 0; n < mostWays && ways.TryPop(out var at); n++)
        {
            var readings = Readings(Keys.Find(at.Place.Version)!, at.Place.Couplet);
            var steps = map.Steps(at.Place);
            for (var l = 0; l < steps.Length; l++)
            {
                var claims = new Dictionary<string, StatementClaim>(at.Claims, StringComparer.Ordinal);
                // What is said further down is said of fewer taxa: it stands.
                foreach (var claim in readings[l].SelectMany(r => r.Claims).Where(c => c.IsOfUsualAge))
                    claims[claim.Character] = claim;
                if (steps[l].Place is { } next)
                    ways.Push((next, claims));
                else
                {
                    foreach (var end in steps[l].Ends)
                    {
                        if (found.TryGetValue(end, out var list))
                            list.Add(claims);
                        else
                            found[end] = [claims];
                    }
                }
            }
        }
        return found;
    }

    private IEnumerable<CharacterDescription> Describe(List<Dictionary<string, StatementClaim>> ways)
    {
        foreach (var id in ways.SelectMany(w => w.Keys).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal))
        {
            if (Table.Find(id) is not { } character)
                continue;
            var claims = ways.Select(w => w.GetValueOrDefault(id)).OfType<StatementClaim>().ToList();
            // One way that says nothing of it leaves it unknown there; the others describe it.
            if (character.IsQuantity)
            {
                var ranges = claims.Select(c => c.Range).OfType<QuantityRange>().Distinct().ToList();
                if (ranges.Count == 1)
                    yield return new CharacterDescription(id, [], ranges[0]);
                else if (ranges.Count > 1)
                    yield return new CharacterDescription(
                        id,
                        [],
                        new QuantityRange(ranges[0].Kind, RangeForm.Between, ranges.Min(r => r.Low), ranges.Max(r => r.High))
                    );
            }
            else
            {
                var shares = new Dictionary<string, double>(StringComparer.Ordinal);
                foreach (var claim in claims)
                {
                    foreach (var state in claim.States)
                        shares[state] = shares.GetValueOrDefault(state) + claim.Modality / claim.States.Count / claims.Count;
                }
                yield return new CharacterDescription(
                    id,
                    [.. shares.OrderBy(s => s.Key, StringComparer.Ordinal).Select(s => new StateShare(s.Key, s.Value))]
                );
            }
        }
    }
}
