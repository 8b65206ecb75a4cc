using System.Text.Json.Serialization;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Identification;

/// <summary>A part of the candidates that a look would leave.</summary>
/// <param name="Outcome">What would be seen: the name of a state, "under 12 mm", "12 mm to 3 cm".</param>
/// <param name="State">Id of the state; empty for a stretch of a measure.</param>
/// <param name="Place">Its place among all that can be seen, from 0: of states in their order, of stretches from the smallest.</param>
/// <param name="Share">How probable it is that this is seen, 0 to 1.</param>
/// <param name="Taxa">The likeliest taxa of which this is what they most probably show.</param>
/// <param name="More">How many more of the candidates there are.</param>
public sealed record SplitPart(string Outcome, string State, int Place, double Share, IReadOnlyList<string> Taxa, int More);

/// <summary>A look that would help.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Bits">How much it tells: expected information about which candidate it is, in bits.</param>
/// <param name="EffortSeconds">How long the look takes.</param>
/// <param name="Split">How it would part the candidates, the commonest outcome first.</param>
/// <param name="InWords">The split in a sentence.</param>
public sealed record TellingLook(string Character, double Bits, int EffortSeconds, IReadOnlyList<SplitPart> Split, string InWords)
{
    // More branches than this can't be read side by side.
    private const int MostBranches = 4;

    /// <summary>The split as it is drawn: its likeliest outcomes in the order in which they lie, and all others as one branch.</summary>
    public IReadOnlyList<SplitBranch> Branches
    {
        get
        {
            var ordered = Split.OrderByDescending(p => p.Share).ToList();
            var alone = ordered.Count > MostBranches ? MostBranches - 1 : ordered.Count;
            var drawn = ordered
                .Take(alone)
                .OrderBy(p => p.Place)
                .Select(p => new SplitBranch(p.Outcome, p.State, p.Place, p.Share))
                .ToList();
            if (alone < ordered.Count)
                drawn.Add(new SplitBranch($"{ordered.Count - alone} others", "", null, ordered.Skip(alone).Sum(p => p.Share)));
            return drawn;
        }
    }
}

/// <summary>A branch of a split as it is drawn.</summary>
/// <param name="Words">What would be seen; "7 others" for those that go together.</param>
/// <param name="State">Id of the state; empty for a stretch of a measure and for several.</param>
/// <param name="Place">Its place among all that can be seen; null for several.</param>
/// <param name="Share">How probable it is that this is seen, 0 to 1.</param>
public sealed record SplitBranch(string Words, string State, int? Place, double Share)
{
    /// <summary>Its probability in words.</summary>
    public string ShareInWords => Quantities.Percent.OfProbability(Share);
}

/// <summary>Why a look that would tell can't be taken now.</summary>
[JsonConverter(typeof(CamelCaseWords<WaitReason>))]
public enum WaitReason
{
    /// <summary>The organ can't be seen at this time of the year.</summary>
    Season,

    /// <summary>This plant hasn't the organ now.</summary>
    Missing,

    /// <summary>A tool is missing.</summary>
    Tool,

    /// <summary>It wants more handling than is allowed, on this plant or here.</summary>
    Handling,

    /// <summary>It would bring the plant to nose or skin, and one of the candidates is poisonous or irritant.</summary>
    Harm,
}

/// <summary>A look that would tell much but can't be taken now.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Bits">How much it would tell.</param>
/// <param name="Reason">What stands in its way.</param>
/// <param name="When">When it can be taken: "late May to June"; for the season alone, else empty.</param>
/// <param name="InWords">What it waits for, in a sentence.</param>
public sealed record LaterLook(string Character, double Bits, WaitReason Reason, string When, string InWords);

/// <summary>
/// The looks that help most from where a list stands. A look is worth its expected information about which candidate it is,
/// I = H(outcome) − Σ P(candidate)·H(outcome | candidate), over the candidates that hold 99.9 % (Shannon 1948), for its effort.
/// </summary>
/// <param name="Now">Those that can be taken now, most bits per second first.</param>
/// <param name="Later">Those that would tell more but can't be taken now.</param>
public sealed record TellingLooks(IReadOnlyList<TellingLook> Now, IReadOnlyList<LaterLook> Later)
{
    private const int MostNow = 12;
    private const int MostLater = 6;
    private const int MostNamed = 3;

    // A longer sentence isn't read in the rain.
    private const int MostSaid = 4;

    private static readonly Tool[] UsualTools = [Tool.Binoculars, Tool.Lens, Tool.Ruler, Tool.Knife];

    // A protected plant is not picked, whatever else is allowed.
    private const double ProtectedFrom = 0.05;

    // With this much of a poisonous or irritant candidate nobody is asked to smell, crush or cut for sap.
    private const double HarmfulFrom = 0.02;

    // Smells and saps, by the older characters and by the qualities of any part.
    private static bool BringsHarm(Character character) =>
        character.Id is "leaf-smell" or "twig-sap" || CharacterId.Read(character.Id) is { Quality: "scent" or "sap" };

    internal static TellingLooks Of(Sifter sifter, Sifter.WeighedList list, SiftQuery query)
    {
        var options = sifter.Options;
        // Before anything was seen all are alike: none is left out then, and what they show all together is known of each character.
        var isEven = list.Probability.Length > 0 && Array.TrueForAll(list.Probability, p => p.Equals(list.Probability[0]));
        var held = list.Leading(isEven ? 1 : options.Held, int.MaxValue);
        if (held.Count == 0)
            return new TellingLooks([], []);
        var total = held.Sum(t => list.Probability[t]) + list.None;
        var weights = held.ConvertAll(t => list.Probability[t] / total);
        var none = list.None / total;
        var onSheet = list.Items.Select(i => i.Item.Character).ToList();
        var taken = onSheet.Select(c => c.Id).Concat(query.Skip ?? []).ToHashSet(StringComparer.Ordinal);
        // A look that came to nothing isn't asked for again.
        taken.UnionWith(query.Observations.Select(o => o.Character));
        var visible = new Visibility(sifter, held, weights, query.Day, FollowingItems.SexOf(query.Observations));
        var each = isEven && held.Count == sifter.Columns.Taxa.Count ? weights[0] : 0;
        var isProtected =
            held.Zip(weights)
                .Where(h => sifter.TaxonAt(h.First) is { } taxon && taxon.Cautions.Contains(Caution.Protected))
                .Sum(h => h.Second) >= ProtectedFrom;
        var isHarmful =
            held.Zip(weights)
                .Where(h =>
                    sifter.TaxonAt(h.First) is { } taxon
                    && (taxon.Cautions.Contains(Caution.Poisonous) || taxon.Cautions.Contains(Caution.Irritant))
                )
                .Sum(h => h.Second) >= HarmfulFrom;
        var most = isProtected && query.Most > Handling.Touch ? Handling.Touch : query.Most;
        var tools = query.Tools ?? UsualTools;
        List<(OutcomeTable Table, double Bits, double Worth)> now = [];
        List<(OutcomeTable Table, double Bits, WaitReason Reason)> later = [];
        var columns = sifter.Columns.Columns;
        // What is left of woody ones under a twentieth isn't asked about.
        const double leastWoody = 0.05;
        var mayBeWoody =
            isEven
            || held.Zip(weights).Where(h => sifter.TaxonAt(h.First)?.Facts is not { } facts || Showing.MayBeWoody(facts)).Sum(h => h.Second)
                >= leastWoody;
        for (var c = 0; c < columns.Count; c++)
        {
            var character = columns[c].Character;
            // Ratios and trends derive themselves from what they are made of, and so does a comparison whose parts were measured.
            if (
                taken.Contains(character.Id)
                || character.TrendOf.Length > 0
                || character.RatioOf is { } parts && (character.Kind == CharacterKind.Ratio || parts.All(taken.Contains))
            )
                continue;
            if (
                character.Family.Length > 0
                && onSheet.Where(s => s.Family == character.Family).Distinct().Count() >= options.Evidence.IndependentOfFamily
            )
                continue;
            // Nobody looks for twigs on a herb.
            if (!mayBeWoody && Showing.IsOfWood(character))
                continue;
            var table =
                held.Count <= options.FewCandidates && character.IsQuantity
                    ? Adapted(columns[c], held, weights, options)
                    : sifter.OutcomesOf(c);
            if (table.Outcomes < 2)
                continue;
            var share = visible.Of(character).Share;
            var inTheWay =
                share < options.LeastVisible ? WaitReason.Season
                : query.Missing?.Contains(character.Organ) == true ? WaitReason.Missing
                : character.Tool != Tool.Eye && !tools.Contains(character.Tool) ? WaitReason.Tool
                : isHarmful && BringsHarm(character) ? WaitReason.Harm
                : character.Handling > most ? WaitReason.Handling
                : (WaitReason?)null;
            var on = inTheWay is null && visible.Of(character) is { IsAll: false } some ? some.Rows : null;
            var bits = Bits(table, held, weights, each, none, options.StrangerDiffers(sifter.KinDiffer(c)), on);
            // Sizes that vary together tell less, as they weigh less.
            var mates = character.SizeGroup.Length == 0 ? 0 : onSheet.Where(s => s.SizeGroup == character.SizeGroup).Distinct().Count();
            bits /= 1 + mates * options.Evidence.SizeCorrelation;
            if (bits < options.LeastBits)
                continue;
            if (inTheWay is { } reason)
                later.Add((table, bits, reason));
            else
                now.Add((table, bits, bits / (character.EffortSeconds + options.LookSeconds)));
        }
        // Where the place is known, its ground and kind are too, mostly: first what the plant itself shows.
        var isPlaceKnown = query.Place?.Habitats is { Count: > 0 };
        // What is underground is asked last.
        int Late(OutcomeTable table) =>
            table.Column.Character.Handling == Handling.Uproot ? 2
            : isPlaceKnown && table.Column.Character.Organ == Organ.Site ? 1
            : 0;
        now.Sort(
            (a, b) =>
                Late(a.Table).CompareTo(Late(b.Table)) is not 0 and var late ? late
                : b.Worth.CompareTo(a.Worth) is not 0 and var by ? by
                : string.CompareOrdinal(a.Table.Column.Character.Id, b.Table.Column.Character.Id)
        );
        later.Sort(
            (a, b) =>
                b.Bits.CompareTo(a.Bits) is not 0 and var by
                    ? by
                    : string.CompareOrdinal(a.Table.Column.Character.Id, b.Table.Column.Character.Id)
        );
        // What is closed now is worth a word where it tells more than the best that is open.
        var bestNow = now.Count == 0 ? 0 : now.Max(n => n.Bits);
        const double nearlyAsMuch = 0.7;
        return new TellingLooks(
            [.. now.Take(MostNow).Select(n => LookAt(n.Table, n.Bits, sifter, held, weights, visible.Of(n.Table.Column.Character).Rows))],
            [
                .. later
                    .Where(l => l.Bits >= nearlyAsMuch * bestNow)
                    .Take(MostLater)
                    .Select(l => Wait(l.Table.Column.Character, l.Bits, l.Reason, visible, query.Day, isProtected)),
            ]
        );
    }

    private static OutcomeTable Adapted(CharacterColumn column, List<int> held, List<double> weights, SiftOptions options)
    {
        var of = column.Of();
        var weightOfCell = new Dictionary<int, double>();
        for (var i = 0; i < held.Count; i++)
        {
            if (of[held[i]] is var cell and > 0)
                weightOfCell[cell - 1] = weightOfCell.GetValueOrDefault(cell - 1) + weights[i];
        }
        return OutcomeTable.Of(column, weightOfCell, options);
    }

    // Of a taxon that isn't described, hasn't the part or doesn't show it now, a look says what any plant would: nothing.
    private static double Bits(
        OutcomeTable table,
        List<int> held,
        List<double> weights,
        double each,
        double none,
        double kinDiffer,
        bool[]? visible
    )
    {
        var column = table.Column;
        var of = column.Of();
        Span<double> outcome = stackalloc double[table.Outcomes];
        var known = 0d;
        var information = 0d;
        if (each > 0 && visible is null)
        {
            for (var s = 0; s < outcome.Length; s++)
                outcome[s] = each * table.OfAll[s];
            known = each * table.Having;
            information = each * table.InformationOfAll;
        }
        else if (held.Count > column.Cells.Count)
        {
            // First the weight of each cell, then its outcomes: taxa share cells.
            var cells = new double[column.Cells.Count + 1];
            for (var i = 0; i < held.Count; i++)
            {
                if (visible is null || visible[i])
                    cells[of[held[i]]] += weights[i];
            }
            for (var c = 0; c < column.Cells.Count; c++)
            {
                if (cells[c + 1] == 0 || !column.Applies(c))
                    continue;
                Add(table, c, cells[c + 1], outcome, ref known, ref information);
            }
        }
        else
        {
            for (var i = 0; i < held.Count; i++)
            {
                if (visible is not null && !visible[i] || of[held[i]] is not (> 0 and var cell) || !column.Applies(cell - 1))
                    continue;
                Add(table, cell - 1, weights[i], outcome, ref known, ref information);
            }
        }
        var rest = Math.Max(0, 1 - none - known);
        information += rest * table.MarginalInformation;
        for (var s = 0; s < outcome.Length; s++)
        {
            var p = outcome[s] + rest * table.Marginal[s];
            // What isn't on the list is near kin of what is: it shows the same, but where species of a genus differ.
            var ofNone = (1 - kinDiffer) * p / Math.Max(1e-12, 1 - none) + kinDiffer * table.Marginal[s];
            if (ofNone > 0)
                information += none * ofNone * Math.Log(ofNone);
            p += none * ofNone;
            if (p > 0)
                information -= p * Math.Log(p);
        }
        return Math.Max(0, information) / Math.Log(2);
    }

    private static void Add(OutcomeTable table, int cell, double weight, Span<double> outcome, ref double known, ref double information)
    {
        known += weight;
        information += weight * table.Information[cell];
        var probabilities = table.Of(cell);
        for (var s = 0; s < outcome.Length; s++)
            outcome[s] += weight * probabilities[s];
    }

    private static TellingLook LookAt(OutcomeTable table, double bits, Sifter sifter, List<int> held, List<double> weights, bool[] visible)
    {
        var column = table.Column;
        var of = column.Of();
        var share = new double[table.Outcomes];
        var members = Enumerable.Range(0, table.Outcomes).Select(_ => new List<int>()).ToArray();
        var known = 0d;
        for (var i = 0; i < held.Count; i++)
        {
            if (!visible[i] || of[held[i]] is not (> 0 and var cell) || !column.Applies(cell - 1))
                continue;
            var probabilities = table.Of(cell - 1);
            known += weights[i];
            var best = 0;
            for (var s = 0; s < share.Length; s++)
            {
                share[s] += weights[i] * probabilities[s];
                if (probabilities[s] > probabilities[best])
                    best = s;
            }
            members[best].Add(held[i]);
        }
        for (var s = 0; s < share.Length; s++)
            share[s] += Math.Max(0, 1 - known) * table.Marginal[s];
        const double leastShare = 0.02;
        var parts = Enumerable
            .Range(0, share.Length)
            .Where(s => share[s] >= leastShare || members[s].Count > 0)
            .OrderByDescending(s => share[s])
            .ThenBy(s => s)
            .Select(s => new SplitPart(
                OutcomeInWords(table, s),
                column.Character.IsQuantity ? "" : column.Character.States[s].Id,
                s,
                share[s],
                [.. members[s].Take(MostNamed).Select(t => sifter.Columns.Taxa[t])],
                Math.Max(0, members[s].Count - MostNamed)
            ))
            .ToList();
        return new TellingLook(column.Character.Id, bits, column.Character.EffortSeconds, parts, InWordsOf(parts, sifter));
    }

    private static string InWordsOf(List<SplitPart> parts, Sifter sifter)
    {
        string Name(string id) => sifter.TaxonAt(sifter.Columns.IndexOf(id))?.Name ?? id;
        var told = parts
            .Where(p => p.Taxa.Count > 0)
            .Select(p =>
                $"{p.Outcome}: {(p.Taxa.Count + p.More <= 2 ? string.Join(" or ", p.Taxa.Select(Name)) : $"{p.Taxa.Count + p.More} taxa")}"
            )
            .ToList();
        var said = string.Join("; ", told.Take(told.Count > MostSaid ? MostSaid - 1 : MostSaid));
        return told.Count > MostSaid ? $"{said}; and {told.Count - MostSaid + 1} other states." : said + (told.Count > 0 ? "." : "");
    }

    private static string OutcomeInWords(OutcomeTable table, int outcome)
    {
        var character = table.Column.Character;
        if (!character.IsQuantity)
            return character.States[outcome].Name;
        var kind = character.Quantity;
        string Show(double value) => ReadingText.Show(kind == QuantityKind.Count ? Math.Floor(value) : Rounded(value), kind);
        if (outcome == 0)
            return kind == QuantityKind.Count ? $"up to {Show(table.Cuts[0])}" : $"under {Show(table.Cuts[0])}";
        var from = table.Cuts[outcome - 1];
        var low = kind == QuantityKind.Count ? ReadingText.Show(Math.Ceiling(from), kind) : Show(from);
        if (outcome == table.Cuts.Length)
            return kind == QuantityKind.Count ? $"{low} or more" : $"over {low}";
        var high = Show(table.Cuts[outcome]);
        return low == high ? low : $"{low} to {high}";
    }

    // Two digits say where a cut lies.
    private static double Rounded(double value)
    {
        if (value <= 0)
            return value;
        var step = Math.Pow(10, Math.Floor(Math.Log10(value)) - 1);
        return Math.Round(value / step) * step;
    }

    private static LaterLook Wait(Character character, double bits, WaitReason reason, Visibility visible, DateOnly? day, bool isProtected)
    {
        var when = reason == WaitReason.Season ? visible.When(character, day) : "";
        var words = reason switch
        {
            WaitReason.Season => when == "never" ? "can’t be seen on these here" : $"can be seen {when}",
            WaitReason.Missing => "not on this plant now",
            WaitReason.Harm => "wants the plant smelled, crushed or cut, and one of these is poisonous or irritant",
            WaitReason.Tool =>
                $"wants {(character.Tool == Tool.Binoculars ? "binoculars" : $"a {character.Tool.ToString().ToLowerInvariant()}")}",
            _ => isProtected && character.Handling <= Handling.Cut
                ? "wants a part of the plant, and one of these may be protected"
                : $"wants the plant {(character.Handling == Handling.Uproot ? "dug up" : character.Handling == Handling.Cut ? "cut" : "picked")}",
        };
        return new LaterLook(character.Id, bits, reason, when, words);
    }

    // On which candidates something can be seen, and what share of the probability they hold.
    private sealed record Seen(bool[] Rows, bool IsAll, double Share);

    /// <summary>On which candidates a character can be seen, by the phases it is seen in.</summary>
    private sealed class Visibility(Sifter sifter, List<int> held, List<double> weights, DateOnly? day, PartSex? sex)
    {
        // Of a plant of one sex the other one's characters aren't asked where the taxon has them on other plants.
        private readonly CharacterColumn? _sexes =
            sex is PartSex.Male or PartSex.Female && FollowingItems.SharingOfSexes(sifter.Table.Characters) is { } sharing
                ? sifter.Columns.Find(sharing.Id)
                : null;

        private bool IsElsewhere(int row, Character character) =>
            _sexes?[row] is { } cell
            && FollowingItems.IsOf(sex == PartSex.Male ? PartSex.Female : PartSex.Male, character)
            && cell.States.Any(s => s.State == "dioecious" && s.Share > 0.5);

        private readonly Dictionary<string, Seen> _of = new(StringComparer.Ordinal);

        public Seen Of(Character character)
        {
            var isOfOther = _sexes is not null && FollowingItems.IsOf(sex == PartSex.Male ? PartSex.Female : PartSex.Male, character);
            var name = $"{string.Join(',', character.SeenIn)}{(isOfOther ? "|other sex" : "")}";
            if (_of.TryGetValue(name, out var known))
                return known;
            var half = day is { } on ? PhaseSpan.HalfMonth(on) : 0;
            var rows = new bool[held.Count];
            double seen = 0,
                all = 0;
            for (var i = 0; i < rows.Length; i++)
            {
                rows[i] =
                    (day is null || character.SeenIn.Count == 0 || sifter.CanBeSeen(held[i], character, half))
                    && !IsElsewhere(held[i], character);
                all += weights[i];
                if (rows[i])
                    seen += weights[i];
            }
            return _of[name] = new Seen(rows, Array.TrueForAll(rows, r => r), all > 0 ? seen / all : 0);
        }

        public string When(Character character, DateOnly? on)
        {
            var marked = new bool[SeasonWords.HalfMonths];
            for (var half = 1; half <= marked.Length; half++)
            {
                var seen = 0d;
                for (var i = 0; i < held.Count; i++)
                {
                    if (sifter.CanBeSeen(held[i], character, half))
                        seen += weights[i];
                }
                marked[half - 1] = seen >= 0.5 * weights.Sum();
            }
            return SeasonWords.NextStretch(marked, on is { } day ? PhaseSpan.HalfMonth(day) : 1);
        }
    }
}
