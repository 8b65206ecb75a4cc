using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Core.Identification;

/// <summary>Sifts a flora by whatever was seen. It keeps what it worked out last, so it is for one caller at a time: whoever shares one
/// takes turns.</summary>
public sealed partial class Sifter
{
    /// <summary>Stands among taxa for a plant that isn't on the list.</summary>
    public const string NotOnList = "not-on-this-list";

    // Nobody reads further.
    private const int MostNamed = 30;
    private const int MostReasoned = 12;

    // The first are opened whatever they hold; of further ones with less than this nobody asks why.
    private const int MostOpened = 8;
    private const double WorthReasons = 0.001;

    private readonly Taxon?[] _taxa;
    private CharacterTable _table;
    private DerivedDescriptions? _derived;
    private readonly Likelihood _likelihood;
    private readonly SiftOptions _options;
    private readonly OutcomeTable?[] _outcomes;

    private readonly double[] _kinDiffer;
    private readonly Lazy<(int First, int Second)[]> _kinPairs;

    // So many pairs of species of one genus say how often they differ.
    private const int MostKinPairs = 200;

    // Weighed items of the last sheet: of one with a look more all others are there already. A few that are no longer on it stay for a
    // while,
    // since looks are taken back and left out by turns; no more, since they are large.
    private readonly Dictionary<(ItemKey Item, bool Controlled), WeighedItem> _weighed = [];
    private const int MostOfOtherSheets = 8;

    /// <summary>Creates an instance of this type.</summary>
    /// <param name="columns">What the taxa are like.</param>
    /// <param name="taxa">The taxa of the flora; those that aren't described are left out.</param>
    /// <param name="seasons">When phenophases last in the region.</param>
    /// <param name="options">The numbers to weigh with.</param>
    public Sifter(FloraColumns columns, IReadOnlyList<Taxon> taxa, IReadOnlyList<PhaseWindow> seasons, SiftOptions? options = null)
    {
        ArgumentNullException.ThrowIfNull(columns);
        ArgumentNullException.ThrowIfNull(taxa);
        _options = options ?? SiftOptions.Default;
        (Columns, Taxa) = (columns, taxa);
        _table = new CharacterTable([.. columns.Columns.Select(c => c.Character)], [], seasons);
        _taxa = new Taxon?[columns.Taxa.Count];
        foreach (var taxon in taxa)
        {
            if (columns.IndexOf(taxon.Id) is >= 0 and var t)
                _taxa[t] = taxon;
        }
        _likelihood = new Likelihood([], _options.Evidence);
        (_sums, _scratch) = (new double[_taxa.Length], new double[_taxa.Length]);
        _kin = [.. _options.KinFar.Select(_ => new double[_taxa.Length])];
        (_all, _alike) = (new bool[_taxa.Length], new double[_taxa.Length]);
        Array.Fill(_all, true);
        Array.Fill(_alike, 1);
        _outcomes = new OutcomeTable?[columns.Columns.Count];
        _kinDiffer = new double[columns.Columns.Count];
        _kinPairs = new(KinPairs);
    }

    /// <summary>What the taxa are like.</summary>
    public FloraColumns Columns { get; }

    /// <summary>Makes characters of parts and qualities, so that looks at what the flora doesn't describe count as far as something follows
    /// from what it does; null: they are left out.</summary>
    public BotanyIndex? Botany
    {
        get => _table.Botany;
        set
        {
            if (ReferenceEquals(value, _table.Botany))
                return;
            _table = _table with { Botany = value };
            _derived = value is null ? null : new DerivedDescriptions(value, _table.Characters);
            _completed.Clear();
            _weighed.Clear();
        }
    }

    // Columns with what follows from others, by character.
    private readonly Dictionary<string, CharacterColumn?> _completed = new(StringComparer.Ordinal);

    // So many characters that aren't the flora's are kept: sheets have far fewer.
    private const int MostCompleted = 200;

    /// <summary>The column of a character with what follows from other ones; null where nothing is known of it.</summary>
    internal CharacterColumn? ColumnOf(Character character)
    {
        var own = Columns.Find(character.Id);
        if (_derived is null || _derived.Sources(character) is not { Count: > 0 } sources)
            return own;
        if (_completed.TryGetValue(character.Id, out var known))
            return known;
        var columns = sources.ToDictionary(s => s, s => Columns.Find(s.Id)!);
        var rows = new CharacterDescription?[Columns.Taxa.Count];
        // Cell by cell, not taxon by taxon: many share what they are derived from.
        var usual = Likelihood.Usual(
            character,
            own is null ? [] : [.. Enumerable.Range(0, rows.Length).Select(t => own[t]).OfType<CharacterDescription>()]
        );
        var made = new Dictionary<string, CharacterDescription?>(StringComparer.Ordinal);
        var any = false;
        for (var t = 0; t < rows.Length; t++)
        {
            rows[t] = own?[t];
            if (rows[t] is null)
            {
                var cells = string.Join(',', sources.Select(s => columns[s].Of()[t]));
                if (!made.TryGetValue(cells, out var follows))
                    made[cells] = follows = _derived.Of(character, usual, s => columns[s][t]);
                rows[t] = follows;
            }
            any |= rows[t] is not null;
        }
        if (_completed.Count >= MostCompleted)
            _completed.Clear();
        return _completed[character.Id] = any ? CharacterColumn.Of(character, rows) : null;
    }

    /// <summary>All taxa of the flora, those that aren't described too.</summary>
    internal IReadOnlyList<Taxon> Taxa { get; }

    /// <summary>The taxon of a row; null where only its description is known.</summary>
    internal Taxon? TaxonAt(int row) => _taxa[row];

    /// <summary>Characters and seasons.</summary>
    internal CharacterTable Table => _table;

    /// <summary>The numbers it weighs with.</summary>
    public SiftOptions Options => _options;

    /// <summary>Per row whether a taxon is on the list as a query narrows it.</summary>
    public bool[] Listed(SiftQuery query)
    {
        ArgumentNullException.ThrowIfNull(query);
        return [.. Enumerable.Range(0, _taxa.Length).Select(t => IsOnList(t, query))];
    }

    /// <summary>Whether a character can be seen on a taxon on a day; false where either is unknown.</summary>
    public bool CanBeSeen(string taxon, string character, DateOnly day) =>
        Columns.IndexOf(taxon) is >= 0 and var row
        && Columns.Find(character) is { } column
        && CanBeSeen(row, column.Character, PhaseSpan.HalfMonth(day));

    /// <summary>Whether a taxon shows a character in a half-month: by its own phenology where that speaks of the phase, else by the
    /// region's seasons.</summary>
    internal bool CanBeSeen(int row, Character character, int halfMonth)
    {
        // Where nothing is known of any season, nothing is out of season.
        if (character.SeenIn.Count == 0 || _table.Seasons.Count == 0 && _taxa[row]?.Facts is not { Phenology.Count: > 0 })
            return true;
        return Showing.Can(_taxa[row]?.Facts ?? TaxonFacts.None, character.SeenIn, halfMonth, _table.Seasons);
    }

    // Each species with the next one of its genus, evenly taken from all genera.
    private (int First, int Second)[] KinPairs()
    {
        var pairs = new List<(int, int)>();
        foreach (
            var genus in Enumerable
                .Range(0, _taxa.Length)
                .Where(t => _taxa[t] is { Rank: not ("cultivar" or "form") })
                .GroupBy(t => _taxa[t]!.Name.Split(' ')[0], StringComparer.Ordinal)
        )
        {
            var rows = genus.ToArray();
            for (var i = 0; i < rows.Length; i++)
            {
                for (var j = i + 1; j < Math.Min(rows.Length, i + 4); j++)
                    pairs.Add((rows[i], rows[j]));
            }
        }
        var step = Math.Max(1, (pairs.Count + MostKinPairs - 1) / MostKinPairs);
        return [.. pairs.Where((_, i) => i % step == 0)];
    }

    /// <summary>How often two species of one genus of this flora differ in a character: the mean of 1 − overlap, drawn towards the
    /// usual.</summary>
    internal double KinDiffer(int at)
    {
        if (_kinDiffer[at] > 0)
            return _kinDiffer[at];
        var column = Columns.Columns[at];
        var table = OutcomesOf(at);
        var (sum, pairs) = (_options.KinDiffer * _options.KinDifferWorth, _options.KinDifferWorth);
        foreach (var (first, second) in _kinPairs.Value)
        {
            if (
                column.Of()[first] is not (> 0 and var a)
                || column.Of()[second] is not (> 0 and var b)
                || !column.Applies(a - 1)
                || !column.Applies(b - 1)
            )
                continue;
            sum += table.Apart(a - 1, b - 1);
            pairs++;
        }
        return _kinDiffer[at] = Math.Max(_options.KinDifferLeast, sum / pairs);
    }

    // How well cells are separated by their densities: the same pairs are asked for again and again.
    private readonly Dictionary<(int Column, int First, int Second), double> _separated = [];
    private const int MostSeparated = 50_000;

    /// <summary>How well a character separates two taxa, by the densities of their descriptions (<see cref="Separation"/>); known pairs of
    /// cells come at once.</summary>
    internal double Separated(int column, int first, int second)
    {
        var it = Columns.Columns[column];
        int a = it.Of()[first],
            b = it.Of()[second];
        var name = (column, Math.Min(a, b), Math.Max(a, b));
        if (_separated.TryGetValue(name, out var known))
            return known;
        if (_separated.Count >= MostSeparated)
            _separated.Clear();
        return _separated[name] = Separation.Of(it.Character, it[first], it[second], _likelihood);
    }

    /// <summary>How well a character separates two taxa: 1 − overlap; 1 where only one of them has the part, 0 where either is
    /// unknown.</summary>
    internal double Apart(int column, int first, int second)
    {
        var it = Columns.Columns[column];
        if (it.Of()[first] is not (> 0 and var a) || it.Of()[second] is not (> 0 and var b))
            return 0;
        var (has, other) = (it.Applies(a - 1), it.Applies(b - 1));
        if (!has || !other)
            return has != other ? 1 : 0;
        // Of ranges the outcomes are at hand that looks are weighed by; states are compared as they are described.
        return it.Character.IsQuantity
            ? OutcomesOf(column).Apart(a - 1, b - 1)
            : Separation.Of(it.Character, it.Cells[a - 1], it.Cells[b - 1], _likelihood);
    }

    /// <summary>The outcomes of a look at a column, worked out once.</summary>
    internal OutcomeTable OutcomesOf(int column) => _outcomes[column] ??= OutcomeTable.Of(Columns.Columns[column], _options);

    /// <summary>Works out what looks at some more characters can show, so that later answers come at once; false when all is
    /// ready.</summary>
    /// <param name="characters">How many characters to go on with.</param>
    public bool WarmUp(int characters)
    {
        for (var c = 0; c < _outcomes.Length; c++)
        {
            if (_outcomes[c] is not null)
                continue;
            if (characters-- <= 0)
                return true;
            _outcomes[c] = OutcomeTable.Of(Columns.Columns[c], _options);
        }
        return false;
    }

    /// <summary>Only the probabilities, row by row, and that of a plant that isn't on the list.</summary>
    public (IReadOnlyList<double> Probability, double NotOnList) Ranked(SiftQuery query)
    {
        var weighed = Weigh(query);
        return (weighed.Probability, weighed.None);
    }

    /// <summary>Sifts.</summary>
    public SiftResult Sift(SiftQuery query) => Weigh(query).Result();

    /// <summary>Sifts, and says which looks help most from here.</summary>
    public (SiftResult Result, TellingLooks Looks) SiftAndLook(SiftQuery query)
    {
        var weighed = Weigh(query);
        return (weighed.Result(), TellingLooks.Of(this, weighed, query));
    }

    /// <summary>The items of a sheet.</summary>
    public IReadOnlyList<EvidenceItem> ItemsOf(IReadOnlyList<Observation> observations) =>
        EvidenceItem.Pool(EvidenceSheet.Holding(observations), _table, _options.Evidence, _derived);

    internal WeighedList Weigh(SiftQuery query)
    {
        ArgumentNullException.ThrowIfNull(query);
        var items = ItemsOf(query.Observations);
        var onSheet = items.Select(i => i.Character.Id).ToHashSet(StringComparer.Ordinal);
        var weighed = new List<WeighedItem>(items.Count);
        foreach (var item in items)
        {
            // What nothing is known of stays on the sheet and counts for nothing.
            if (ColumnOf(item.Character) is not { } column)
                continue;
            var controlled = item.Character.Needs is { } needs && onSheet.Contains(needs.Character);
            var name = (Name(item), controlled);
            if (!_weighed.TryGetValue(name, out var known))
            {
                known = _weighed[name] = WeighedItem.Of(
                    item,
                    column,
                    _likelihood,
                    controlled,
                    _options.KinFar,
                    Columns.IndexOfCharacter(item.Character.Id) is >= 0 and var at ? KinDiffer(at) : _options.KinDiffer
                );
            }
            // What was weighed may stem from other looks with the same values: its couplets and notes are those of this sheet.
            weighed.Add(ReferenceEquals(known.Item, item) ? known : known.For(item));
        }
        if (_weighed.Count > weighed.Count + MostOfOtherSheets)
        {
            foreach (var (name, other) in _weighed)
            {
                if (!weighed.Exists(other.IsAs))
                    _weighed.Remove(name);
            }
        }
        return new WeighedList(this, weighed, query);
    }

    // What the last sheet came to, row by row: the next one mostly differs from it in a look or two, which are added to it or taken off.
    private List<WeighedItem> _summed = [];
    private readonly double[] _sums;
    private readonly double[][] _kin;
    private readonly double[] _scratch;
    private int _steps;

    // So often sums are carried on before they are made anew, lest roundings add up.
    private const int MostSteps = 32;

    private void Sum(List<WeighedItem> items)
    {
        var added = NotAmong(items, _summed);
        var gone = NotAmong(_summed, items);
        var carriesOn =
            _steps < MostSteps && added.Count + gone.Count < items.Count && items.Count - added.Count == _summed.Count - gone.Count;
        if (!carriesOn)
        {
            Array.Clear(_sums);
            foreach (var kin in _kin)
                Array.Clear(kin);
            (added, gone) = (items, []);
        }
        _steps = carriesOn ? _steps + 1 : 0;
        foreach (var item in gone)
            item.TakeFrom(_sums, _kin);
        foreach (var item in added)
            item.AddTo(_sums, _kin);
        _summed = items;
    }

    // Mostly the same items stand in the same places. One that stands twice is among others only where it stands twice there too.
    private static List<WeighedItem> NotAmong(List<WeighedItem> items, List<WeighedItem> others)
    {
        var missing = new List<WeighedItem>();
        var met = new bool[others.Count];
        for (var i = 0; i < items.Count; i++)
        {
            var at = i < others.Count && !met[i] && items[i].IsAs(others[i]) ? i : -1;
            for (var j = 0; at < 0 && j < others.Count; j++)
            {
                if (!met[j] && items[i].IsAs(others[j]))
                    at = j;
            }
            if (at < 0)
                missing.Add(items[i]);
            else
                met[at] = true;
        }
        return missing;
    }

    // Of a list that isn't narrowed every row stands on it, with the same weight.
    private readonly bool[] _all;
    private readonly double[] _alike;

    private (string Name, double[] Weights)? _plausible;

    // What place, day and the organs shown make plausible, row by row; null where nothing is known of them. Of the last circumstances it is
    // at hand.
    private double[]? PlausibleWeights(SiftQuery query, IReadOnlyList<IReadOnlyList<Phenophase>> shown)
    {
        if (!query.Plausible && query.Place is null && query.Day is null)
            return null;
        var name = string.Create(
            System.Globalization.CultureInfo.InvariantCulture,
            $"{query.Place?.Cell}|{query.Place?.Elevation:R}|{string.Join(',', query.Place?.Habitats ?? [])}|{(query.Day is { } day ? PhaseSpan.HalfMonth(day) : 0)}|{string.Join(';', shown.Select(s => string.Join(',', s)).Distinct().Order(StringComparer.Ordinal))}"
        );
        if (_plausible is { } known && known.Name == name)
            return known.Weights;
        var weights = new double[_taxa.Length];
        for (var t = 0; t < weights.Length; t++)
            weights[t] = _taxa[t] is { } taxon ? Plausibility.WeightOf(taxon, query.Place, query.Day, shown, null, _table.Seasons) : 1;
        _plausible = (name, weights);
        return weights;
    }

    // What cells say in words: the same leaders are told of again and again.
    private readonly Dictionary<(CharacterColumn Column, int Cell), string> _prose = [];
    private const int MostProse = 5000;

    private string Prose(CharacterColumn column, int row)
    {
        var name = (column, (int)column.Of()[row]);
        if (_prose.TryGetValue(name, out var known))
            return known;
        if (_prose.Count >= MostProse)
            _prose.Clear();
        return _prose[name] = FloraProse.Value(column[row], column.Character);
    }

    // All that its weight and its words depend on.
    private readonly record struct ItemKey(
        string Character,
        string States,
        bool Together,
        bool NotFound,
        double Mean,
        int Count,
        double Least,
        double Largest,
        double Resolution,
        double Calibration,
        int Show,
        int Of,
        Sureness Sureness,
        bool Larger,
        double Weight,
        LookContext Context,
        string More
    );

    private static ItemKey Name(EvidenceItem item) =>
        new(
            item.Character.Id,
            item.States.Count == 0 ? "" : string.Join(',', item.States),
            item.Together,
            item.NotFound,
            item.Sample?.Mean ?? 0,
            item.Sample?.Count ?? 0,
            item.Sample?.Least ?? 0,
            item.Sample?.Largest ?? 0,
            item.Sample?.Resolution ?? 0,
            item.Sample?.Calibration ?? 0,
            item.Show,
            item.Of,
            item.Sureness,
            item.Larger,
            item.Weight,
            item.Context,
            item is { Elsewhere.Count: 0, Given: null, Searched: false } ? "" : More(item)
        );

    private static string More(EvidenceItem item) =>
        string.Join(
            '|',
            [
                item.Searched ? "searched" : "",
                item.Part.ToString("R", System.Globalization.CultureInfo.InvariantCulture),
                string.Join(',', item.Given?.Select(g => g.ToString("R", System.Globalization.CultureInfo.InvariantCulture)) ?? []),
                .. item.Elsewhere.Select(e =>
                    $"{string.Join(',', e.States)};{e.NotFound};{e.Sureness};{e.Context};{e.Part.ToString("R", System.Globalization.CultureInfo.InvariantCulture)}"
                ),
            ]
        );

    private static readonly Phenophase[] Green = [Phenophase.FullLeaf, Phenophase.WinterGreen];

    private bool IsOnList(int row, SiftQuery query)
    {
        if (query.Narrowing is not { } narrowing)
            return true;
        if (narrowing.Taxa is { Count: > 0 } taxa && !taxa.Contains(Columns.Taxa[row], StringComparer.Ordinal))
            return false;
        var taxon = _taxa[row];
        var facts = taxon?.Facts ?? TaxonFacts.None;
        if (narrowing.Families is { Count: > 0 } families && (taxon is null || !families.Contains(taxon.Family, StringComparer.Ordinal)))
            return false;
        if (narrowing.GrowthForms is { Count: > 0 } forms && !forms.Contains(facts.GrowthForm, StringComparer.OrdinalIgnoreCase))
            return false;
        if (
            narrowing.Genera is { Count: > 0 } genera
            && (taxon is null || !genera.Contains(taxon.Name.Split(' ')[0], StringComparer.Ordinal))
        )
            return false;
        if (
            narrowing.GreenNow == true
            && query.Day is { } day
            && facts.Phenology.Count > 0
            && !Showing.Can(facts, Green, PhaseSpan.HalfMonth(day), _table.Seasons)
        )
            return false;
        return !narrowing.RecordedHere
            || query.Place?.Cell is not { Length: > 0 } cell
            || facts.Cells.Any(c => string.Equals(c, cell, StringComparison.OrdinalIgnoreCase));
    }
}
