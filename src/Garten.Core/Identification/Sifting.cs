using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Identification;

/// <summary>What a list is narrowed to. Everything may be left out; what is given must all hold.</summary>
/// <param name="Families">Only these families.</param>
/// <param name="GrowthForms">Only these growth forms.</param>
/// <param name="Genera">Only these genera, by name.</param>
/// <param name="RecordedHere">Only what is recorded in the place's grid cell.</param>
/// <param name="Taxa">Only these taxa, by id.</param>
public sealed record Narrowing(
    IReadOnlyList<string>? Families = null, IReadOnlyList<string>? GrowthForms = null, IReadOnlyList<string>? Genera = null, bool RecordedHere = false, IReadOnlyList<string>? Taxa = null);

/// <summary>What is asked of a list.</summary>
/// <param name="Observations">The looks at the plant; superseded ones are passed over.</param>
/// <param name="Plausible">Whether place, date, habitat and elevation weigh in; else all taxa are equal at first.</param>
/// <param name="Place">Where; null where unknown.</param>
/// <param name="Day">The day; null where it doesn't matter.</param>
/// <param name="Tools">What is at hand besides the eye; null for all but a microscope.</param>
/// <param name="Most">The most handling that is allowed.</param>
/// <param name="Missing">Organs that this plant hasn't now.</param>
/// <param name="Skip">Characters that can't be told on this plant.</param>
/// <param name="Narrowing">What the list is narrowed to; null for the whole of it.</param>
public sealed record SiftQuery(
    IReadOnlyList<Observation> Observations, bool Plausible = false, SiftPlace? Place = null, DateOnly? Day = null, IReadOnlyCollection<Tool>? Tools = null, Handling Most = Handling.Cut,
    IReadOnlyCollection<Organ>? Missing = null, IReadOnlyCollection<string>? Skip = null, Narrowing? Narrowing = null);

/// <summary>One thing seen, and how it stands to a taxon.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Seen">What was seen.</param>
/// <param name="Described">What the taxon is like.</param>
/// <param name="Fit">How the two stand; null where the taxon isn't described in it, or the look doesn't count.</param>
/// <param name="Odds">ln of how many times as probable it is under this taxon as on any plant; below 0 it speaks against it.</param>
/// <param name="Note">Why it counts less, or is judged otherwise; empty for most.</param>
public sealed record SiftReason(string Character, string Seen, string Described, Fit? Fit, double Odds, string Note);

/// <summary>A candidate with its probability.</summary>
/// <param name="Taxon">Id of the taxon; <see cref="Sifter.NotOnList"/> for a plant that isn't on the list.</param>
/// <param name="Probability">Its probability, 0 to 1.</param>
/// <param name="Conflicts">How many looks conflict with it.</param>
/// <param name="Described">In how many of the looked at characters it is described.</param>
/// <param name="Other">Its probability by the other prior: plausible where this is equal, equal where this is plausible.</param>
/// <param name="Reasons">What speaks for and against it, strongest first; of the likeliest only.</param>
/// <param name="Prior">Why it is less plausible here, in sentences; of the likeliest only.</param>
public sealed record Candidate(string Taxon, double Probability, int Conflicts, int Described, double Other, IReadOnlyList<SiftReason> Reasons, IReadOnlyList<string> Prior);

/// <summary>How sure a standing is.</summary>
public enum StandingCall
{
    /// <summary>Nothing has been seen that counts.</summary>
    Nothing,

    /// <summary>One name holds nearly all.</summary>
    FarAhead,

    /// <summary>One name is several times as likely as the next.</summary>
    Ahead,

    /// <summary>One of a few.</summary>
    OneOf,

    /// <summary>Many are still as likely.</summary>
    Open,

    /// <summary>Most likely none of the list.</summary>
    NotOnList,

    /// <summary>What was seen fits none of the list.</summary>
    NoneFits,
}

/// <summary>A list sifted.</summary>
/// <param name="Standing">The candidates, likeliest first; "not on this list" is among them.</param>
/// <param name="Call">How sure it is.</param>
/// <param name="Leaders">How many the call speaks of: 3 for "one of three".</param>
/// <param name="InWords">The same in words.</param>
/// <param name="Alike">Sets of leading taxa whose descriptions are the same: no look tells them apart.</param>
/// <param name="Listed">How many taxa are on the list as narrowed.</param>
/// <param name="LeastProbable">What the taxa share that the standing doesn't name.</param>
/// <param name="Items">What the sheet came to.</param>
public sealed record SiftResult(
    IReadOnlyList<Candidate> Standing, StandingCall Call, int Leaders, string InWords, IReadOnlyList<IReadOnlyList<string>> Alike, int Listed, double LeastProbable, IReadOnlyList<EvidenceItem> Items);

/// <summary>Sifts a flora by whatever was seen.</summary>
public sealed class Sifter
{
    /// <summary>Stands among taxa for a plant that isn't on the list.</summary>
    public const string NotOnList = "not-on-this-list";

    // Nobody reads further, and of these the reasons are worked out.
    private const int MostNamed = 60;
    private const int MostReasoned = 12;

    // The first are opened whatever they hold; of further ones with less than this nobody asks why.
    private const int MostOpened = 8;
    private const double WorthReasons = 0.001;

    private readonly Taxon?[] _taxa;
    private readonly CharacterTable _table;
    private readonly Likelihood _likelihood;
    private readonly SiftOptions _options;
    private readonly OutcomeTable?[] _outcomes;

    private readonly double[] _kinDiffer;
    private readonly Lazy<(int First, int Second)[]> _kinPairs;

    // So many pairs of species of one genus say how often they differ.
    private const int MostKinPairs = 200;

    // Weighed items of the last sheets: of one with a look more all others are there already.
    private readonly Dictionary<(ItemKey Item, bool Controlled), WeighedItem> _weighed = [];
    private const int MostWeighed = 200;

    /// <summary>Makes it.</summary>
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
            if (columns.IndexOf(taxon.Id) is >= 0 and var t) _taxa[t] = taxon;
        }
        _likelihood = new Likelihood([], _options.Evidence);
        _outcomes = new OutcomeTable?[columns.Columns.Count];
        _kinDiffer = new double[columns.Columns.Count];
        _kinPairs = new(KinPairs);
    }

    /// <summary>What the taxa are like.</summary>
    public FloraColumns Columns { get; }

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
    public bool CanBeSeen(string taxon, string character, DateOnly day) => Columns.IndexOf(taxon) is >= 0 and var row && Columns.Find(character) is { } column && CanBeSeen(row, column.Character, PhaseSpan.HalfMonth(day));

    /// <summary>Whether a taxon shows a character in a half-month: by its own phenology where that speaks of the phase, else by the region's seasons.</summary>
    internal bool CanBeSeen(int row, Character character, int halfMonth)
    {
        if (character.SeenIn.Count == 0) return true;
        var own = _taxa[row]?.Facts?.Phenology ?? [];
        foreach (var phase in character.SeenIn)
        {
            var isKnown = false;
            foreach (var span in own)
            {
                if (span.Phase != phase) continue;
                if (span.Holds(halfMonth)) return true;
                isKnown = true;
            }
            if (!isKnown && !IsOver(phase, own) && _table.Seasons.Any(w => w.Phase == phase && w.Holds(SeasonWords.Middle(halfMonth)))) return true;
        }
        return false;
    }

    /// <summary>Whether a phase that a taxon's own phenology doesn't speak of can be told from it: of one whose fruit has its time, none persists unless that is said.</summary>
    internal static bool IsOver(Phenophase phase, IReadOnlyList<PhaseSpan> own) => phase == Phenophase.FruitPersisting && own.Any(s => s.Phase is Phenophase.RipeFruit);

    // Each species with the next one of its genus, evenly taken from all genera.
    private (int First, int Second)[] KinPairs()
    {
        var pairs = new List<(int, int)>();
        foreach (var genus in Enumerable.Range(0, _taxa.Length).Where(t => _taxa[t] is { Rank: not ("cultivar" or "form") }).GroupBy(t => _taxa[t]!.Name.Split(' ')[0], StringComparer.Ordinal))
        {
            var rows = genus.ToArray();
            for (var i = 0; i < rows.Length; i++)
            {
                for (var j = i + 1; j < Math.Min(rows.Length, i + 4); j++) pairs.Add((rows[i], rows[j]));
            }
        }
        var step = Math.Max(1, (pairs.Count + MostKinPairs - 1) / MostKinPairs);
        return [.. pairs.Where((_, i) => i % step == 0)];
    }

    /// <summary>How often two species of one genus of this flora differ in a character: the mean of 1 − overlap, drawn towards the usual.</summary>
    internal double KinDiffer(int at)
    {
        if (_kinDiffer[at] > 0) return _kinDiffer[at];
        var column = Columns.Columns[at];
        var table = OutcomesOf(at);
        var (sum, pairs) = (_options.KinDiffer * _options.KinDifferWorth, _options.KinDifferWorth);
        foreach (var (first, second) in _kinPairs.Value)
        {
            if (column.Of()[first] is not (> 0 and var a) || column.Of()[second] is not (> 0 and var b) || !column.Applies(a - 1) || !column.Applies(b - 1)) continue;
            sum += table.Apart(a - 1, b - 1);
            pairs++;
        }
        return _kinDiffer[at] = Math.Max(_options.KinDifferLeast, sum / pairs);
    }

    // How well cells are separated by their densities: the same pairs are asked for again and again.
    private readonly Dictionary<(int Column, int First, int Second), double> _separated = [];
    private const int MostSeparated = 50_000;

    /// <summary>How well a character separates two taxa, by the densities of their descriptions (<see cref="Separation"/>); known pairs of cells come at once.</summary>
    internal double Separated(int column, int first, int second)
    {
        var it = Columns.Columns[column];
        int a = it.Of()[first], b = it.Of()[second];
        var name = (column, Math.Min(a, b), Math.Max(a, b));
        if (_separated.TryGetValue(name, out var known)) return known;
        if (_separated.Count >= MostSeparated) _separated.Clear();
        return _separated[name] = Separation.Of(it.Character, it[first], it[second], _likelihood);
    }

    /// <summary>How well a character separates two taxa: 1 − overlap; 1 where only one of them has the part, 0 where either is unknown.</summary>
    internal double Apart(int column, int first, int second)
    {
        var it = Columns.Columns[column];
        if (it.Of()[first] is not (> 0 and var a) || it.Of()[second] is not (> 0 and var b)) return 0;
        var (has, other) = (it.Applies(a - 1), it.Applies(b - 1));
        if (!has || !other) return has != other ? 1 : 0;
        // Of ranges the outcomes are at hand that looks are weighed by; states are compared as they are described.
        return it.Character.IsQuantity ? OutcomesOf(column).Apart(a - 1, b - 1) : Separation.Of(it.Character, it.Cells[a - 1], it.Cells[b - 1], _likelihood);
    }

    /// <summary>The outcomes of a look at a column, worked out once.</summary>
    internal OutcomeTable OutcomesOf(int column) => _outcomes[column] ??= OutcomeTable.Of(Columns.Columns[column], _options);

    /// <summary>Works out what looks at some more characters can show, so that later answers come at once; false when all is ready.</summary>
    /// <param name="characters">How many characters to go on with.</param>
    public bool WarmUp(int characters)
    {
        for (var c = 0; c < _outcomes.Length; c++)
        {
            if (_outcomes[c] is not null) continue;
            if (characters-- <= 0) return true;
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
    public IReadOnlyList<EvidenceItem> ItemsOf(IReadOnlyList<Observation> observations) => EvidenceItem.Pool(EvidenceSheet.Holding(observations), _table, _options.Evidence);

    internal WeighedList Weigh(SiftQuery query)
    {
        ArgumentNullException.ThrowIfNull(query);
        var items = ItemsOf(query.Observations);
        var onSheet = items.Select(i => i.Character.Id).ToHashSet(StringComparer.Ordinal);
        var weighed = new List<WeighedItem>(items.Count);
        foreach (var item in items)
        {
            var controlled = item.Character.Needs is { } needs && onSheet.Contains(needs.Character);
            var name = (Name(item), controlled);
            if (!_weighed.TryGetValue(name, out var known))
            {
                if (_weighed.Count >= MostWeighed) _weighed.Clear();
                known = _weighed[name] = WeighedItem.Of(item, Columns.Find(item.Character.Id)!, _likelihood, controlled, KinDiffer(Columns.IndexOfCharacter(item.Character.Id)));
            }
            // What was weighed may stem from other looks with the same values: its couplets and notes are those of this sheet.
            weighed.Add(ReferenceEquals(known.Item, item) ? known : known.For(item));
        }
        return new WeighedList(this, weighed, query);
    }

    // The sums of the last sheet: the next one mostly differs from it in a look or two.
    private (List<WeighedItem> Items, double[] Sums, double[] Kin, int[] Conflicts, int Steps)? _summed;

    // So often sums are carried on before they are made anew, lest roundings add up.
    private const int MostSteps = 32;

    private void Sum(IReadOnlyList<WeighedItem> items, double[] sums, double[] kin, int[] conflicts)
    {
        var steps = 0;
        if (_summed is { } last && last.Steps < MostSteps)
        {
            var added = items.Where(i => !last.Items.Exists(i.IsAs)).ToList();
            var gone = last.Items.Where(l => !items.Any(l.IsAs)).ToList();
            if (added.Count + gone.Count < items.Count && items.Count - added.Count == last.Items.Count - gone.Count)
            {
                last.Sums.CopyTo(sums, 0);
                last.Kin.CopyTo(kin, 0);
                last.Conflicts.CopyTo(conflicts, 0);
                foreach (var item in gone) item.TakeFrom(sums, kin, conflicts);
                foreach (var item in added) item.AddTo(sums, kin, conflicts);
                steps = last.Steps + 1;
            }
        }
        if (steps == 0)
        {
            foreach (var item in items) item.AddTo(sums, kin, conflicts);
        }
        _summed = ([.. items], sums, kin, conflicts, steps);
    }

    private (string Name, double[] Weights)? _plausible;

    // What place, day and the organs shown make plausible, row by row; null where nothing is known of them. Of the last circumstances it is at hand.
    private double[]? PlausibleWeights(SiftQuery query, IReadOnlyList<IReadOnlyList<Phenophase>> shown)
    {
        if (!query.Plausible && query.Place is null && query.Day is null) return null;
        var name = string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{query.Place?.Cell}|{query.Place?.Elevation:R}|{string.Join(',', query.Place?.Habitats ?? [])}|{(query.Day is { } day ? PhaseSpan.HalfMonth(day) : 0)}|{string.Join(';', shown.Select(s => string.Join(',', s)).Distinct().Order(StringComparer.Ordinal))}");
        if (_plausible is { } known && known.Name == name) return known.Weights;
        var weights = new double[_taxa.Length];
        for (var t = 0; t < weights.Length; t++) weights[t] = _taxa[t] is { } taxon ? Plausibility.WeightOf(taxon, query.Place, query.Day, shown, null) : 1;
        _plausible = (name, weights);
        return weights;
    }

    // What cells say in words: the same leaders are told of again and again.
    private readonly Dictionary<(CharacterColumn Column, int Cell), string> _prose = [];
    private const int MostProse = 5000;

    private string Prose(CharacterColumn column, int row)
    {
        var name = (column, (int)column.Of()[row]);
        if (_prose.TryGetValue(name, out var known)) return known;
        if (_prose.Count >= MostProse) _prose.Clear();
        return _prose[name] = FloraProse.Value(column[row], column.Character);
    }

    // All that its weight depends on.
    private readonly record struct ItemKey(
        string Character, string States, bool Together, bool NotFound, double Mean, int Count, double Resolution, double Calibration, int Show, int Of, Sureness Sureness, bool Larger, double Weight);

    private static ItemKey Name(EvidenceItem item) => new(
        item.Character.Id, item.States.Count == 0 ? "" : string.Join(',', item.States), item.Together, item.NotFound, item.Sample?.Mean ?? 0, item.Sample?.Count ?? 0, item.Sample?.Resolution ?? 0,
        item.Sample?.Calibration ?? 0, item.Show, item.Of, item.Sureness, item.Larger, item.Weight);

    /// <summary>A list weighed by a sheet: probabilities, row by row.</summary>
    internal sealed class WeighedList
    {
        private readonly Sifter _sifter;
        private readonly SiftQuery _query;
        private readonly double[] _other;
        private readonly double _otherNone;
        private readonly int[] _conflicts;
        private readonly IReadOnlyList<IReadOnlyList<Phenophase>> _shown;

        // What was seen, item by item, in words.
        private string[] _seen = [];

        // The columns of what was looked at and counts.
        private readonly List<CharacterColumn> _looked;

        public WeighedList(Sifter sifter, IReadOnlyList<WeighedItem> items, SiftQuery query)
        {
            (_sifter, Items, _query) = (sifter, items, query);
            var n = sifter._taxa.Length;
            double[] sums = new double[n], kin = new double[n];
            _conflicts = new int[n];
            sifter.Sum(items, sums, kin, _conflicts);
            _shown = [.. items.Where(i => i.Item.Weight > 0 && i.Item.Character.SeenIn.Count > 0).Select(i => i.Item.Character.SeenIn)];
            _looked = [.. items.Where(i => i.Item.Weight > 0).Select(i => i.Column).Distinct()];
            IsListed = new bool[n];
            var equal = new double[n];
            var weights = sifter.PlausibleWeights(query, _shown);
            var plausible = weights is null ? equal : new double[n];
            if (query.Narrowing is null) Array.Fill(IsListed, true);
            for (var t = 0; t < n; t++)
            {
                if (query.Narrowing is not null) IsListed[t] = sifter.IsOnList(t, query);
                if (!IsListed[t]) continue;
                Listed++;
                equal[t] = 1;
                if (weights is not null) plausible[t] = weights[t];
            }
            (var own, var other) = query.Plausible ? (plausible, equal) : (equal, plausible);
            (Probability, None) = Posterior(own, sums, kin, sifter._options);
            (_other, _otherNone) = weights is null ? (Probability, None) : Posterior(other, sums, kin, sifter._options);
        }

        public IReadOnlyList<WeighedItem> Items { get; }
        public bool[] IsListed { get; }
        public int Listed { get; }

        /// <summary>Per row its probability.</summary>
        public double[] Probability { get; }

        /// <summary>Probability that the plant isn't on the list.</summary>
        public double None { get; }

        // P(t) ∝ prior(t)·Π ratios. "Not on this list" is a plant like any other, or one near kin of one that is here: like it but for a share of its characters.
        private static (double[] P, double None) Posterior(double[] prior, double[] sums, double[] kin, SiftOptions options)
        {
            var total = prior.Sum();
            var result = new double[prior.Length];
            if (total <= 0) return (result, 1);
            var top = 0d;
            for (var t = 0; t < prior.Length; t++)
            {
                if (prior[t] <= 0) continue;
                if (sums[t] > top) top = sums[t];
                if (kin[t] > top) top = kin[t];
            }
            // What is this much less likely than the best adds nothing to a double: of a full sheet few taxa are left to be raised.
            const double nothing = -60;
            var listed = (1 - options.NotOnList) / total;
            double[] raised = new double[prior.Length], kinOf = new double[prior.Length];
            int[] rows = new int[prior.Length], kinRows = new int[prior.Length];
            int count = 0, kinCount = 0;
            for (var t = 0; t < prior.Length; t++)
            {
                if (prior[t] <= 0) continue;
                if (sums[t] - top > nothing) (rows[count], raised[count++]) = (t, sums[t] - top);
                if (kin[t] - top > nothing) (kinRows[kinCount], kinOf[kinCount++]) = (t, kin[t] - top);
            }
            Lanes.Exp(raised.AsSpan(0, count));
            Lanes.Exp(kinOf.AsSpan(0, kinCount));
            double sum = 0, kinSum = 0;
            for (var i = 0; i < count; i++) sum += result[rows[i]] = raised[i] * listed * prior[rows[i]];
            for (var i = 0; i < kinCount; i++) kinSum += prior[kinRows[i]] * kinOf[i];
            kinSum /= total;
            var none = options.NotOnList * ((1 - options.KinOfNotOnList) * Math.Exp(-top) + options.KinOfNotOnList * kinSum);
            sum += none;
            var share = 1 / sum;
            for (var i = 0; i < count; i++) result[rows[i]] *= share;
            return (result, none * share);
        }

        // The least probability that may still be among so many of the likeliest: rows are counted by powers of two, not sorted.
        private double LeastAmong(int most)
        {
            // The exponent of a double above 0, as it is kept: that of 1 is 1023; those below the least all count as one.
            const int deepest = 1024, one = 1023, mantissa = 52;
            var counts = new int[deepest];
            var listed = 0;
            for (var t = 0; t < Probability.Length; t++)
            {
                if (!IsListed[t]) continue;
                listed++;
                if (Probability[t] > 0) counts[Math.Clamp(one - (int)(BitConverter.DoubleToInt64Bits(Probability[t]) >> mantissa), 0, deepest - 1)]++;
            }
            if (listed <= most) return 0;
            var above = 0;
            for (var power = 0; power < deepest; power++)
            {
                if ((above += counts[power]) >= most) return Math.ScaleB(1, -power);
            }
            return 0;
        }

        /// <summary>Rows by probability, likeliest first, as many as hold a share of it, at most so many.</summary>
        public List<int> Leading(double share, int most)
        {
            var rows = new List<int>();
            var least = (1 - share) / Math.Max(1, Probability.Length);
            if (most < Probability.Length) least = Math.Max(least, LeastAmong(most));
            for (var t = 0; t < Probability.Length; t++)
            {
                if (IsListed[t] && Probability[t] >= least && Probability[t] > 0) rows.Add(t);
            }
            // Of a flat standing there are thousands: keys are sorted without a call for each comparison, equal ones stay in the order of the rows.
            var (order, keys) = (rows.ToArray(), rows.ConvertAll(t => -Probability[t]).ToArray());
            Array.Sort(keys, order);
            for (var i = 0; i < order.Length;)
            {
                var from = i;
                while (i < order.Length && keys[i].Equals(keys[from])) i++;
                if (i - from > 1) Array.Sort(order, from, i - from);
            }
            double held = 0, wanted = share * (1 - None);
            var count = 0;
            while (count < order.Length && count < most && held < wanted) held += Probability[order[count++]];
            rows = [.. order.AsSpan(0, count)];
            // Those that hold nothing at all come last, in the order of the list.
            for (var t = 0; least == 0 && t < Probability.Length && rows.Count < most; t++)
            {
                if (IsListed[t] && Probability[t] == 0) rows.Add(t);
            }
            return rows;
        }

        public SiftResult Result()
        {
            var rows = Leading(1, MostNamed);
            _seen = [.. Items.Select(i => i.Item.InWords())];
            var candidates = new List<Candidate>(rows.Count + 1);
            for (var i = 0; i < rows.Count; i++) candidates.Add(CandidateAt(rows[i], i < MostOpened || i < MostReasoned && Probability[rows[i]] >= WorthReasons));
            var none = new Candidate(NotOnList, None, 0, 0, _otherNone, [], []);
            // It stands for many plants at once: it goes before a name only where it is likelier than all names together.
            var at = candidates.FindIndex(c => c.Probability < None);
            candidates.Insert(candidates.Count == 0 || None > _sifter._options.CalledNotOnList ? 0 : at < 0 ? candidates.Count : Math.Max(1, at), none);
            var (call, leaders) = Call(rows);
            return new SiftResult(candidates, call, leaders, Words(call, leaders), Alike(rows), Listed, Math.Max(0, 1 - candidates.Sum(c => c.Probability)), [.. Items.Select(i => i.Item)]);
        }

        private Candidate CandidateAt(int t, bool withReasons)
        {
            var described = 0;
            foreach (var column in _looked)
            {
                if (column.Of()[t] > 0) described++;
            }
            if (!withReasons) return new Candidate(_sifter.Columns.Taxa[t], Probability[t], _conflicts[t], described, _other[t], [], []);
            var reasons = new SiftReason[Items.Count];
            for (var i = 0; i < reasons.Length; i++)
            {
                var item = Items[i];
                reasons[i] = new SiftReason(item.Item.Character.Id, _seen[i], _sifter.Prose(item.Column, t), item.FitOf(t), item.Ratio(t), item.Item.Reason);
            }
            Array.Sort(reasons, (a, b) => Math.Abs(b.Odds).CompareTo(Math.Abs(a.Odds)) is not 0 and var by ? by : string.CompareOrdinal(a.Character, b.Character));
            var prior = _sifter._taxa[t] is { } taxon ? Plausibility.Of(taxon, _query.Place, _query.Day, _shown).Reasons : [];
            return new Candidate(_sifter.Columns.Taxa[t], Probability[t], _conflicts[t], described, _other[t], reasons, prior);
        }

        private (StandingCall Call, int Leaders) Call(List<int> rows)
        {
            var options = _sifter._options;
            if (rows.Count == 0) return (StandingCall.NoneFits, 0);
            if (Items.All(i => i.Item.Weight == 0)) return (StandingCall.Nothing, rows.Count);
            // A conflict is no proof, two looks against every name are: then the list doesn't hold this plant, or a look went wrong.
            var first = Probability[rows[0]];
            var counting = Items.Count(i => i.Item.Weight > 0);
            if (rows.TrueForAll(t => _conflicts[t] > 0) && (counting == 1 || rows.TrueForAll(t => _conflicts[t] >= 2))) return (StandingCall.NoneFits, Math.Min(3, rows.Count));
            if (None > options.CalledNotOnList) return (StandingCall.NotOnList, 0);
            if (first >= options.FarAhead) return (StandingCall.FarAhead, 1);
            var second = Math.Max(None, rows.Count > 1 ? Probability[rows[1]] : 0);
            if (first >= options.Ahead * second) return (StandingCall.Ahead, 1);
            double held = 0;
            const int few = 8;
            for (var i = 0; i < rows.Count && i < few; i++)
            {
                held += Probability[rows[i]];
                if (held >= options.OneOf * (1 - None)) return (StandingCall.OneOf, i + 1);
            }
            return (StandingCall.Open, rows.Count(t => Probability[t] >= first / 20));
        }

        private static readonly string[] Numbers = ["none", "one", "two", "three", "four", "five", "six", "seven", "eight"];

        private string Words(StandingCall call, int leaders) => call switch
        {
            StandingCall.Nothing => $"nothing seen yet; {Listed} taxa on the list",
            StandingCall.FarAhead => "far ahead",
            StandingCall.Ahead => "ahead",
            StandingCall.OneOf => $"one of {Numbers[leaders]}",
            StandingCall.NotOnList => "most likely not on this list",
            StandingCall.NoneFits => Listed == 0 ? "the list is empty" : "none of the list fits",
            _ => $"{leaders} are still likely",
        };

        // Leading taxa between which no look can decide.
        private List<IReadOnlyList<string>> Alike(List<int> rows)
        {
            const int most = 12;
            var sets = new List<List<int>>();
            foreach (var t in rows.Take(most))
            {
                if (sets.Find(s => _sifter.Columns.Columns.All(c => c.Of()[s[0]] == c.Of()[t])) is { } same) same.Add(t);
                else sets.Add([t]);
            }
            return [.. sets.Where(s => s.Count > 1).Select(s => s.ConvertAll(t => _sifter.Columns.Taxa[t]))];
        }
    }

    private bool IsOnList(int row, SiftQuery query)
    {
        if (query.Narrowing is not { } narrowing) return true;
        if (narrowing.Taxa is { Count: > 0 } taxa && !taxa.Contains(Columns.Taxa[row], StringComparer.Ordinal)) return false;
        var taxon = _taxa[row];
        var facts = taxon?.Facts ?? TaxonFacts.None;
        if (narrowing.Families is { Count: > 0 } families && (taxon is null || !families.Contains(taxon.Family, StringComparer.Ordinal))) return false;
        if (narrowing.GrowthForms is { Count: > 0 } forms && !forms.Contains(facts.GrowthForm, StringComparer.OrdinalIgnoreCase)) return false;
        if (narrowing.Genera is { Count: > 0 } genera && (taxon is null || !genera.Contains(taxon.Name.Split(' ')[0], StringComparer.Ordinal))) return false;
        return !narrowing.RecordedHere || query.Place?.Cell is not { Length: > 0 } cell || facts.Cells.Any(c => string.Equals(c, cell, StringComparison.OrdinalIgnoreCase));
    }
}
