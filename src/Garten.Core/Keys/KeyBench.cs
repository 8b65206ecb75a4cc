using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;

namespace Garten.Core.Keys;

/// <summary>A taxon with its probability.</summary>
/// <param name="Name">As the keys call it.</param>
/// <param name="TaxonId">The taxon of the flora; null where the flora hasn't it.</param>
/// <param name="Share">Its probability among all ends of the keys, 0 to 1.</param>
/// <param name="OnTrail">Whether the answers leave it standing.</param>
/// <param name="IsProvisional">Whether it is weighed by what the key itself says of it, for want of a description.</param>
/// <param name="Items">How the sheet stands to it, item by item; empty for all but the likeliest ends.</param>
public sealed record WeighedEnd(string Name, string? TaxonId, double Share, bool OnTrail, bool IsProvisional, IReadOnlyList<ItemFit> Items)
{
    // An end off the trail is worth a line from this share on.
    private const double WorthALine = 0.03;

    /// <summary>Its probability in words.</summary>
    public string ShareInWords => Percent.OfProbability(Share);

    /// <summary>Whether it is worth a word though the answers left it behind.</summary>
    public bool IsLikelyOffTrail => !OnTrail && Share >= WorthALine;
}

/// <summary>The answered couplet that was most likely answered wrongly.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Probability">Probability that the plant left the trail there, by the sheet and the descriptions.</param>
/// <param name="Lead">The lead that it may lie under instead.</param>
/// <param name="Character">The character to look at again; empty where none can be seen now.</param>
/// <param name="Best">The likeliest taxon behind the leads that weren't taken.</param>
public sealed record WeakTurn(string KeyVersion, string Couplet, double Probability, int Lead, string Character, string Best)
{
    // A doubt is worth a word once it is a serious one.
    private const double Serious = 0.25;

    /// <summary>The probability in words.</summary>
    public string ProbabilityInWords => Percent.OfProbability(Probability);

    /// <summary>Whether it is worth a word by itself.</summary>
    public bool IsSerious => Probability >= Serious;
}

/// <summary>A path that is still open, with its probability.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="Couplet">Label of the couplet that is open.</param>
/// <param name="Share">Probability of the ends behind it, 0 to 1.</param>
/// <param name="Sides">What to hold against each other for this fork: lead by lead the ids of the likeliest taxa behind it, each taxon
/// once, as many as a contrast takes.</param>
/// <param name="Better">Label and version of an open path that is clearly likelier; null where none is.</param>
public sealed record OpenPath(
    string KeyVersion,
    string Couplet,
    double Share,
    IReadOnlyList<IReadOnlyList<string>> Sides,
    OpenPlace? Better = null
)
{
    // Another path is worth a word when it is this many times as likely.
    private const double ClearlyLikelier = 3;

    /// <summary>Its probability in words.</summary>
    public string ShareInWords => Percent.OfProbability(Share);

    internal static List<OpenPath> WithBetter(IReadOnlyList<OpenPath> paths)
    {
        var likeliest = paths.MaxBy(p => p.Share);
        return
        [
            .. paths.Select(p =>
                likeliest is not null && likeliest != p && likeliest.Share >= p.Share * ClearlyLikelier
                    ? p with
                    {
                        Better = new OpenPlace(likeliest.KeyVersion, likeliest.Couplet, likeliest.ShareInWords),
                    }
                    : p
            ),
        ];
    }
}

/// <summary>An open couplet that is proposed in place of another one.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="ShareInWords">Its probability in words.</param>
public sealed record OpenPlace(string KeyVersion, string Couplet, string ShareInWords);

/// <summary>What the Bench shows of a walk with a sheet.</summary>
/// <param name="Walk">The walk, with the answers that the sheet gives.</param>
/// <param name="Answers">All answers that it was followed by: those given, in place of some "can't tell" those of the sheet, and those of
/// the sheet alone.</param>
/// <param name="BySheet">The answers among them that the sheet has given.</param>
/// <param name="Against">Answered couplets of which the sheet clearly says otherwise.</param>
/// <param name="Verdicts">The open couplets and those on the way, as far as these are shown, weighed.</param>
/// <param name="Ends">The ends of the keys, likeliest first; at most a hundred. The shares are those among all ends.</param>
/// <param name="Turns">The answered couplets by how likely the plant left the trail there, likeliest first; those without any doubt are
/// left out.</param>
/// <param name="Paths">The open couplets with their shares.</param>
/// <param name="Sheet">The sheet put together, character by character.</param>
/// <param name="NotNow">Ids of the characters that can't be seen at this time of the year.</param>
/// <param name="Usable">Ids of the characters that say something of the plants behind these keys: those that any of them is described in;
/// of keys to plants that the flora doesn't describe also those that a lead speaks of.</param>
/// <param name="TrailLooks">Once a name is reached: the looks that test the trail best, best first; else empty.</param>
public sealed record BenchState(
    WalkState Walk,
    IReadOnlyList<TrailAnswer> Answers,
    IReadOnlyList<TrailAnswer> BySheet,
    IReadOnlyList<TrailAnswer> Against,
    IReadOnlyList<CoupletVerdict> Verdicts,
    IReadOnlyList<WeighedEnd> Ends,
    IReadOnlyList<WeakTurn> Turns,
    IReadOnlyList<OpenPath> Paths,
    IReadOnlyList<SheetLine> Sheet,
    IReadOnlyList<string> NotNow,
    IReadOnlyList<string> Usable,
    IReadOnlyList<TrailLook> TrailLooks
)
{
    // Shares that agree to so many places are taken for equal.
    private const int SharePlaces = 6;

    /// <summary>Whether anything sets the ends apart; else all are as likely, and no probability is worth a word.</summary>
    public bool IsWeighed => Ends.Select(e => Math.Round(e.Share, SharePlaces)).Distinct().Skip(1).Any();

    /// <summary>The turn to be looked at again; null where no doubt is serious.</summary>
    public WeakTurn? Weakest => Turns is [{ IsSerious: true } turn, ..] ? turn : null;
}

/// <summary>A line of the evidence sheet.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Seen">What was seen, in words and figures.</param>
/// <param name="Reason">Why it counts less, or is judged otherwise; empty for most.</param>
/// <param name="FitOfBest">How it stands to the likeliest taxon; null where that isn't described in it.</param>
public sealed record SheetLine(string Character, string Seen, string Reason, Fit? FitOfBest);

/// <summary>Follows keys with a sheet of evidence.</summary>
public static class KeyBench
{
    // A species' own form against its cultivated ones, before anything is seen.
    private const double FormPrior = 0.05;

    // Ends beyond these are too unlikely to be looked into item by item.
    private const int MostItemised = 8;

    // Of a large flora the ends beyond these hold next to nothing, and nobody reads that far.
    private const int MostEnds = 100;

    // For the likeliest turns it is worked out what to look at again.
    private const int MostLookedAt = 3;

    // Turns less doubtful than this are left out; whoever shows them says from where on they are worth a word.
    private const double LeastDoubt = 0.001;

    /// <summary>Follows the keys as far as answers and sheet reach, and weighs everything.</summary>
    /// <param name="shelf">Keys and flora.</param>
    /// <param name="start">Hash of the version to start with.</param>
    /// <param name="answers">The answers given; they go before what the sheet says.</param>
    /// <param name="observations">The looks at the plant; superseded ones are passed over.</param>
    /// <param name="hand">Statements weighed by hand.</param>
    /// <param name="day">The day, for what can be seen.</param>
    /// <param name="isShown">Which couplets on the way are shown with their verdicts besides the open ones; null: all.</param>
    public static BenchState Follow(
        BenchShelf shelf,
        string start,
        IReadOnlyList<TrailAnswer> answers,
        IReadOnlyList<Observation> observations,
        IReadOnlyList<HandWeighing> hand,
        DateOnly day,
        Func<TrailStep, bool>? isShown = null
    )
    {
        ArgumentNullException.ThrowIfNull(shelf);
        var options = EvidenceOptions.Default;
        var items = EvidenceItem.Pool(EvidenceSheet.Holding(observations), shelf.Table, options, shelf.Derived);
        var followed = answers.Select(a => a.KeyVersion).ToHashSet(StringComparer.Ordinal);
        if (shelf.Keys.Find(start) is null)
            throw new ArgumentException("The key version to start with isn't on the shelf.", nameof(start));
        var map = shelf.Map(start, followed);
        var names = map.Behind(map.Start);
        var ids = map.Ids;
        var provisional = names.Any(n => ids[n] is not { } id || !shelf.Describes(id))
            ? shelf.Provisional(start)
            : new Dictionary<string, TaxonDescription>(StringComparer.Ordinal);
        var own = provisional
            .Where(p => ids.TryGetValue(p.Key, out var id) && (id is null || !shelf.Describes(id)))
            .Select(p => p.Value)
            .ToList();
        var sheet = new WeighedSheet(items, shelf.With(own));
        string Key(string name) => ids[name] is { } id && shelf.Describes(id) ? id : name;
        var weighing = new CoupletWeighing(sheet, options, shelf.Table);

        CoupletVerdict Weigh(KeyPlace place)
        {
            var version = shelf.Keys.Find(place.Version)!;
            return weighing.Weigh(
                place.Version,
                version.Find(place.Couplet)!,
                shelf.Readings(version, place.Couplet),
                lead => [.. map.Behind(map.Steps(place)[lead]).Select(Key)],
                hand
            );
        }

        // Couplets that the sheet decides are answered by it, one after the other, until one is open.
        var all = answers.ToList();
        var bySheet = new List<TrailAnswer>();
        var verdicts = new Dictionary<KeyPlace, CoupletVerdict>();
        // "Can't tell" leaves it to the sheet: what is seen later closes the fork.
        for (var i = 0; i < all.Count && items.Count + hand.Count > 0; i++)
        {
            var place = new KeyPlace(all[i].KeyVersion, all[i].Couplet);
            if (all[i].Lead is not null || !map.Has(place))
                continue;
            var verdict = verdicts[place] = Weigh(place);
            if (verdict.Call != CoupletCall.Clear)
                continue;
            all[i] = new TrailAnswer(place.Version, place.Couplet, verdict.Best);
            bySheet.Add(all[i]);
        }
        var walk = KeyWalk.Follow(shelf.Keys, start, all);
        for (var going = items.Count > 0 || hand.Count > 0; going; )
        {
            going = false;
            foreach (var open in walk.Open)
            {
                var place = new KeyPlace(open.KeyVersion, open.Couplet.Label);
                if (!verdicts.TryGetValue(place, out var verdict))
                    verdicts[place] = verdict = Weigh(place);
                if (verdict.Call != CoupletCall.Clear)
                    continue;
                var given = new TrailAnswer(place.Version, place.Couplet, verdict.Best);
                all.Add(given);
                bySheet.Add(given);
                going = true;
            }
            if (going)
                walk = KeyWalk.Follow(shelf.Keys, start, all);
        }
        List<KeyPlace> shown =
        [
            .. walk.Steps.Where(s => isShown is null || isShown(s)).Select(s => new KeyPlace(s.KeyVersion, s.Couplet)),
            .. walk.Open.Select(o => new KeyPlace(o.KeyVersion, o.Couplet.Label)),
        ];
        // Without evidence no couplet can speak against its answer.
        var weighed = items.Count + hand.Count == 0 ? shown : [.. walk.Steps.Select(s => new KeyPlace(s.KeyVersion, s.Couplet)), .. shown];
        foreach (var place in weighed)
        {
            if (!verdicts.ContainsKey(place))
                verdicts[place] = Weigh(place);
        }
        var against = answers
            .Where(a =>
                a.Lead is { } l
                && verdicts.TryGetValue(new KeyPlace(a.KeyVersion, a.Couplet), out var v)
                && v.Call == CoupletCall.Clear
                && v.Best != l
            )
            .ToList();

        var onSheet = items.Where(i => i.Weight > 0 || i.Follows).Select(i => i.Character.Id).ToHashSet(StringComparer.Ordinal);
        // One account for ends and turns: what was answered on the way and what is on the sheet, under every end of the keys.
        var logs = names.Select(n => LogLikelihood(shelf, sheet, Key(n), null)).ToArray();
        var byPlace = answers.GroupBy(a => new KeyPlace(a.KeyVersion, a.Couplet)).ToDictionary(g => g.Key, g => g.Last());
        foreach (var step in walk.Steps)
        {
            var place = new KeyPlace(step.KeyVersion, step.Couplet);
            // A couplet that was weighed by hand counts by what was weighed.
            if (
                byPlace.TryGetValue(place, out var given)
                && map.Has(place)
                && !hand.Any(h => h.KeyVersion == place.Version && h.Couplet == place.Couplet)
            )
                shelf.Account(map, place).AddTo(logs, given, onSheet);
        }
        foreach (var byHand in hand)
        {
            var place = new KeyPlace(byHand.KeyVersion, byHand.Couplet);
            if (map.Has(place))
                shelf.Account(map, place).AddTo(logs, byHand);
        }
        var shares = WeighedSheet.Shares(logs);
        var standing = walk.Standing.Select(s => s.Name).ToHashSet(StringComparer.Ordinal);
        var ends = names
            .Select((n, i) => new WeighedEnd(n, ids[n], shares[i], standing.Contains(n), Key(n) == n && provisional.ContainsKey(n), []))
            .OrderByDescending(e => e.Share)
            .ToList();
        for (var i = 0; i < Math.Min(ends.Count, MostItemised); i++)
            ends[i] = ends[i] with { Items = ItemFits(shelf, sheet, Key(ends[i].Name)) };
        var shareOf = ends.ToDictionary(e => e.Name, e => e.Share, StringComparer.Ordinal);
        var paths = walk
            .Open.Select(o => new OpenPath(
                o.KeyVersion,
                o.Couplet.Label,
                map.Behind(new KeyPlace(o.KeyVersion, o.Couplet.Label)).Sum(n => shareOf[n]),
                Sides(o, shareOf)
            ))
            .ToList();
        var turns = Turns(shelf, map, walk, sheet, shareOf, Key, onSheet, day, out var leftAt);
        var order = turns.Select(t => new KeyPlace(t.KeyVersion, t.Couplet)).ToList();
        var trailLooks =
            walk.Open.Count > 0 || walk.Standing.Count == 0
                ? []
                : TrailLooks.Of(
                    shelf,
                    [.. names.Select(n => (Key(n), shareOf[n], leftAt.TryGetValue(n, out var left) ? order.IndexOf(left) : -1))],
                    [.. turns.Select(t => t.Couplet)],
                    onSheet,
                    day
                );
        return new BenchState(
            walk,
            all,
            bySheet,
            against,
            [.. (isShown is null ? verdicts.Keys : shown.Distinct()).Select(p => WithTold(verdicts[p], shelf.Table))],
            ends.Count > MostEnds ? ends[..MostEnds] : ends,
            turns,
            items.Count == 0 ? paths : OpenPath.WithBetter(paths),
            [
                .. items.Select(i => new SheetLine(
                    i.Character.Id,
                    i.InWords(),
                    i.Reason,
                    ends.Count == 0 ? null : ends[0].Items.FirstOrDefault(f => f.Character == i.Character.Id)?.Fit
                )),
            ],
            [.. shelf.Table.Characters.Where(c => !c.CanBeSeen(day, shelf.Table.Seasons)).Select(c => c.Id)],
            shelf.Usable(map, names.Select(Key), sheet.Likelihood),
            trailLooks
        );
    }

    // What a person says by agreeing with a statement or denying it, where it speaks of states.
    private static CoupletVerdict WithTold(CoupletVerdict verdict, CharacterTable table) =>
        verdict with
        {
            Leads =
            [
                .. verdict.Leads.Select(lead =>
                    lead with
                    {
                        Statements =
                        [
                            .. lead.Statements.Select(s =>
                            {
                                var told = s.Reading.Claims.Where(c => c.States.Count > 0).ToList();
                                return told.Count == 0
                                    ? s
                                    : s with
                                    {
                                        IfFits = [.. told.Select(c => new ToldStates(c.Character, c.States))],
                                        IfNot =
                                        [
                                            .. told.Select(c => new ToldStates(
                                                    c.Character,
                                                    [
                                                        .. (table.Find(c.Character)?.States ?? [])
                                                            .Select(state => state.Id)
                                                            .Where(id => !c.States.Contains(id, StringComparer.Ordinal)),
                                                    ]
                                                ))
                                                .Where(t => t.States.Count > 0),
                                        ],
                                    };
                            }),
                        ],
                    }
                ),
            ],
        };

    // What lies on either side of a fork, the likeliest of each lead, as many as can be held against each other.
    private static List<IReadOnlyList<string>> Sides(OpenCouplet open, Dictionary<string, double> shareOf)
    {
        var each = Math.Max(1, Contrast.Most / open.Couplet.Leads.Count);
        var taken = new HashSet<string>(StringComparer.Ordinal);
        return
        [
            .. open.Taxa.Select(lead =>
                (IReadOnlyList<string>)
                    [
                        .. lead.OrderByDescending(t => shareOf.GetValueOrDefault(t.Name))
                            .Select(t => t.TaxonId)
                            .OfType<string>()
                            .Where(id => !taken.Contains(id))
                            .Distinct(StringComparer.Ordinal)
                            .Take(each)
                            .Where(taken.Add),
                    ]
            ),
        ];
    }

    // Item by item, by whichever of its forms fits best.
    private static IReadOnlyList<ItemFit> ItemFits(BenchShelf shelf, WeighedSheet sheet, string taxon) =>
        shelf.FormsOf(taxon).Where(shelf.Describes).Append(taxon).Select(t => sheet.Weigh(t)).MaxBy(w => w.LogLikelihood)!.Items;

    private static double LogLikelihood(BenchShelf shelf, WeighedSheet sheet, string taxon, Func<EvidenceItem, bool>? leaveOut) =>
        Mixed(
            sheet.LogLikelihood(taxon, leaveOut),
            [.. shelf.FormsOf(taxon).Where(shelf.Describes).Select(f => sheet.LogLikelihood(f, leaveOut))]
        );

    // A species is its own form or, rarely, one of its cultivated ones.
    private static double Mixed(double own, double[] forms)
    {
        if (forms.Length == 0)
            return own;
        var top = Math.Max(own, forms.Max());
        return top + Math.Log((1 - FormPrior) * Math.Exp(own - top) + FormPrior / forms.Length * forms.Sum(f => Math.Exp(f - top)));
    }

    // Where the plant may have left the trail: the probability of the ends that each answer left behind. Every end that doesn't stand has
    // left at one turn, so that turns and what stands make 1.
    private static List<WeakTurn> Turns(
        BenchShelf shelf,
        KeyMap map,
        WalkState walk,
        WeighedSheet sheet,
        Dictionary<string, double> shareOf,
        Func<string, string> key,
        HashSet<string> onSheet,
        DateOnly day,
        out Dictionary<string, KeyPlace> leftAt
    )
    {
        leftAt = new(StringComparer.Ordinal);
        var standing = walk.Standing.Select(s => s.Name).ToHashSet(StringComparer.Ordinal);
        var gone = new HashSet<string>(StringComparer.Ordinal);
        var turns = new List<(WeakTurn Turn, KeyPlace Place, string Kept)>();
        // From the last step back: an end that keys out twice has left where its last way was left.
        foreach (var step in walk.Steps.Where(s => s.Lead is not null).Reverse())
        {
            var place = new KeyPlace(step.KeyVersion, step.Couplet);
            if (!map.Has(place))
                continue;
            var leads = map.Steps(place);
            var kept = map.Behind(leads[step.Lead!.Value]).ToHashSet(StringComparer.Ordinal);
            var left = map.Behind(place).Where(n => !kept.Contains(n) && !standing.Contains(n) && gone.Add(n)).ToList();
            if (left.Count == 0)
                continue;
            foreach (var name in left)
                leftAt[name] = place;
            var probability = left.Sum(n => shareOf[n]);
            if (probability < LeastDoubt)
                continue;
            var bestLeft = left.MaxBy(n => shareOf[n])!;
            var lead = Enumerable.Range(0, leads.Length).Where(l => l != step.Lead).First(l => map.Behind(leads[l]).Contains(bestLeft));
            turns.Add((new WeakTurn(step.KeyVersion, step.Couplet, probability, lead, "", bestLeft), place, kept.MaxBy(n => shareOf[n])!));
        }
        return
        [
            .. turns
                .OrderByDescending(t => t.Turn.Probability)
                .Select(
                    (t, i) =>
                        i < MostLookedAt
                            ? t.Turn with
                            {
                                Character = LookAgain(shelf, sheet, t.Place, key(t.Turn.Best), key(t.Kept), onSheet, day),
                            }
                            : t.Turn
                ),
        ];
    }

    // The character to look at: of this couplet's own the one that can be seen now and separates best, else any of the flora's.
    private static string LookAgain(
        BenchShelf shelf,
        WeighedSheet sheet,
        KeyPlace place,
        string first,
        string second,
        HashSet<string> onSheet,
        DateOnly day
    )
    {
        var own = shelf
            .Readings(shelf.Keys.Find(place.Version)!, place.Couplet)
            .SelectMany(l => l)
            .SelectMany(s => s.Claims)
            .Select(c => c.Character)
            .ToHashSet(StringComparer.Ordinal);
        var seen = shelf
            .Table.Characters.Where(c => c.CanBeSeen(day, shelf.Table.Seasons))
            .Select(c => (Character: c, Separation: shelf.Separation(c, first, second, sheet)))
            .Where(c => c.Separation > 0.5)
            .OrderByDescending(c => own.Contains(c.Character.Id))
            .ThenByDescending(c => !onSheet.Contains(c.Character.Id))
            .ThenByDescending(c => Math.Round(c.Separation, 1))
            .ThenBy(c => c.Character.EffortSeconds)
            .ToList();
        return seen.Count > 0 ? seen[0].Character.Id : own.FirstOrDefault() ?? "";
    }
}
