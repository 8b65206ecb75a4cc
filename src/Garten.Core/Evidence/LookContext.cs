using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Evidence;

/// <summary>
/// What the context of a look does to it: where a description is silent about the context, states are mixed with what any plant shows and
/// sizes are shifted and widened; where it speaks, it is held against what is said of it. A look without context and one in the usual
/// context (full-grown, grown plant, sun, middle, fresh) are the same.
/// </summary>
/// <param name="Mix">w, how probable it is that the state here says nothing of the state elsewhere on the plant; 0 to 1.</param>
/// <param name="Shift">By how much sizes differ on the mean, on the logarithm: −0.25 for young parts.</param>
/// <param name="Spread">Standard deviation of that difference, on the logarithm; 0 or more.</param>
/// <param name="Larger">Whether leaves are larger here, as in the shade.</param>
/// <param name="IsNeighbours">Whether it is perhaps a neighbour's.</param>
/// <param name="IsBeneath">Whether it lay beneath, and nothing is known of the crowns above it.</param>
/// <param name="Out">Why it doesn't count at all; empty where it does.</param>
/// <param name="Keys">The contexts as descriptions tell them apart, as a set of bits by <see cref="DescribedContext"/>.</param>
/// <param name="Own">How probable it is that it is the plant's own at all, above 0 to 1. Otherwise it says of the plant what any plant's
/// would.</param>
public readonly record struct LookContext(
    double Mix,
    double Shift,
    double Spread,
    bool Larger,
    bool IsNeighbours,
    bool IsBeneath,
    string Out,
    int Keys,
    double Own = 1
)
{
    /// <summary>The usual one.</summary>
    public static LookContext Usual { get; } = new(0, 0, 0, false, false, false, "", 0);

    /// <summary>Whether it changes nothing.</summary>
    public bool IsUsual => this == Usual;

    /// <summary>The contexts that a description may speak of.</summary>
    public IReadOnlyList<DescribedContext> Described => ByKeys[Keys];

    // Every set of contexts as a list, made once: a measure is held against thousands of cells, each of which is asked what it says there.
    private static readonly IReadOnlyList<DescribedContext>[] ByKeys =
    [
        .. Enumerable
            .Range(0, 1 << Enum.GetValues<DescribedContext>().Length)
            .Select(keys => Enum.GetValues<DescribedContext>().Where(c => (keys >> (int)c & 1) == 1).ToArray()),
    ];

    private static readonly ObservationContext Nothing = new();

    private const string ShapedWhy = "The plant is browsed, cut or trained: its habit, sizes and numbers say nothing.";
    private const string DamagedWhy = "The part is galled, eaten or sick: its measures say nothing.";

    /// <summary>What the context of a look at a character does.</summary>
    /// <param name="character">What was looked at.</param>
    /// <param name="context">What was said of the look.</param>
    /// <param name="rules">How much changes from context to context.</param>
    public static LookContext Of(Character character, ObservationContext context, ContextRules rules)
    {
        ArgumentNullException.ThrowIfNull(character);
        ArgumentNullException.ThrowIfNull(context);
        ArgumentNullException.ThrowIfNull(rules);
        if (context == Nothing)
            return Usual;
        var isNeighbours = context.Attachment == Attachment.PerhapsNeighbours;
        var isBeneath = context is { Attachment: Attachment.Beneath, Crowns: CrownsAbove.Unsaid };
        var own = context.Attachment == Attachment.Beneath ? ShareOf(context.Crowns) : 1;
        // Leaves of a shoot from a cut are larger: that is known of them.
        var isOfShoot = context.Shaping == Shaping.Resprouting && character is { Organ: Organ.Leaf, Kind: CharacterKind.Length };
        if (context.Shaping != Shaping.Unsaid && !isOfShoot && IsShaped(character))
            return Usual with { Out = ShapedWhy, IsNeighbours = isNeighbours };
        if (context.Damage != Damage.Unsaid && character.IsQuantity)
            return Usual with { Out = DamagedWhy, IsNeighbours = isNeighbours };
        var larger = character is { Organ: Organ.Leaf, Kind: CharacterKind.Length } && context.LeavesAreLarger;
        if (!rules.AreOn)
            return new LookContext(0, 0, 0, larger, isNeighbours, isBeneath, "", 0, own);
        double stays = 1,
            shift = 0,
            variance = 0;
        void Changes(double mix, double by = 0, double spread = 0)
        {
            stays *= 1 - mix;
            shift += by;
            variance += spread * spread;
        }
        var change = rules.ChangeOf(character);
        var isVegetative = character.Organ is Organ.Leaf or Organ.Stem or Organ.Twig or Organ.Bud;
        var isLength = character.Kind == CharacterKind.Length;
        if (context.Age == PartAge.Young && character.Organ is not (Organ.Flower or Organ.Site))
            Changes(change, isLength ? rules.YoungShift : 0, isLength ? rules.YoungSpread : 0);
        if (context.Age == PartAge.Old)
            Changes(change * rules.OldShare);
        if (isVegetative)
        {
            if (context.Stage == Stage.Seedling)
                Changes(
                    Math.Max(change, rules.SeedlingLeast),
                    isLength && character.Organ == Organ.Leaf ? rules.SeedlingShift : 0,
                    isLength ? rules.SeedlingSpread : 0
                );
            if (context.Stage is Stage.Sapling or Stage.Juvenile)
                Changes(change * rules.SaplingShare);
            if (context.Shaping == Shaping.Resprouting)
                Changes(change * rules.SaplingShare);
            if (context.Light == Light.Shade)
                Changes(change * rules.ShadeShare);
            if (context.Position is Position.Low or Position.Top && character.Organ is Organ.Leaf)
                Changes(change * rules.PositionShare, 0, isLength ? rules.PositionSpread : 0);
        }
        switch (context.Material)
        {
            case Material.Wilted or Material.Pressed:
                Changes(
                    rules.IsColour(character) ? rules.PressedColour : 0,
                    isLength ? rules.PressedShift : 0,
                    isLength ? rules.PressedSpread : 0
                );
                break;
            case Material.Photograph:
                Changes(rules.IsColour(character) ? rules.PhotographColour : 0, 0, isLength ? rules.PhotographSpread : 0);
                break;
        }
        var keys = 0;
        foreach (var key in DescribedIn(context))
            keys |= 1 << (int)key;
        // Of a measure in the shade the larger range speaks already.
        return new LookContext(1 - stays, shift, Math.Sqrt(variance), larger, isNeighbours, isBeneath, "", keys, own);
    }

    // Wind and animals carry some of what falls even where one crown stands alone.
    private const double OfTheOnlyCrown = 0.95;

    // Crowns that reach over a spot drop as much on it as one another; of four and more five are taken.
    private static double ShareOf(CrownsAbove crowns) =>
        crowns switch
        {
            CrownsAbove.One => OfTheOnlyCrown,
            CrownsAbove.Two => 1 / 2d,
            CrownsAbove.Three => 1 / 3d,
            CrownsAbove.More => 1 / 5d,
            _ => 1,
        };

    /// <summary>The contexts that a look was taken in, as far as descriptions tell them apart; empty for a usual one.</summary>
    /// <param name="context">What was said of the look.</param>
    public static IReadOnlyList<DescribedContext> DescribedIn(ObservationContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        if (context == Nothing)
            return [];
        var all = new List<DescribedContext>(2);
        if (context.Age is PartAge.Young)
            all.Add(DescribedContext.Young);
        if (context.Age is PartAge.Old)
            all.Add(DescribedContext.Old);
        if (context.Position is Position.Low)
            all.Add(DescribedContext.Low);
        if (context.Position is Position.Top)
            all.Add(DescribedContext.Top);
        if (context.Light is Light.Shade)
            all.Add(DescribedContext.Shade);
        if (context.Stage is Stage.Seedling)
            all.Add(DescribedContext.Seedling);
        if (context.Stage is Stage.Sapling or Stage.Juvenile)
            all.Add(DescribedContext.Sapling);
        if (context.Shaping is Shaping.Resprouting)
            all.Add(DescribedContext.Coppice);
        if (context.Sex is PartSex.Male)
            all.Add(DescribedContext.Male);
        if (context.Sex is PartSex.Female)
            all.Add(DescribedContext.Female);
        return all;
    }

    // Browsing and cutting touch sizes, numbers, branching and the time of flowering, of inflorescences too, but not how a flower or fruit
    // is built.
    private static bool IsShaped(Character character) =>
        character.Organ == Organ.Habit
        || character.Organ is not (Organ.Flower or Organ.Fruit or Organ.Site) && (character.IsQuantity || character.SizeGroup.Length > 0)
        || character.Id is "catkin-time";

    /// <summary>Why it is judged otherwise, in a sentence; empty for a usual look.</summary>
    /// <param name="character">What was looked at.</param>
    public string Why(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        if (Out.Length > 0)
            return Out;
        var said = new List<string>();
        if (IsNeighbours)
            said.Add("It is perhaps a neighbour’s: it weighs a quarter.");
        if (IsBeneath)
            said.Add("It lay beneath: it may be of a crown beside this one, and weighs less.");
        if (Own < 1)
            said.Add($"It lay beneath: of this crown it is with a probability of {Percent.OfProbability(Own)}, else of another one.");
        if (Larger)
            said.Add("Measured on leaves of the shade, a sapling or a shoot from a cut, which are larger.");
        if (Mix > 0 || Shift != 0 || Spread > 0)
        {
            var where = string.Join(", ", Described.Select(ContextWords.InWords));
            said.Add(
                $"Seen {(where.Length > 0 ? where : "on changed material")}: "
                    + "where a description speaks of usual parts alone it counts less."
            );
        }
        return string.Join(" ", said);
    }
}

/// <summary>
/// How much changes from context to context where a description doesn't say, each with its reason. Tried for age in simulations (log loss
/// 0.659 without change, 0.914 to 0.746 where looks change); for position, stage and light taken as shares of it.
/// </summary>
public sealed record ContextRules
{
    /// <summary>The rules that the program works with.</summary>
    public static ContextRules Default { get; } = new();

    /// <summary>Whether contexts are weighed at all; benchmarks vary it.</summary>
    public bool AreOn { get; init; } = true;

    /// <summary>Young parts are a quarter smaller on the mean, on the logarithm.</summary>
    public double YoungShift { get; init; } = -0.25;

    /// <summary>How far that strays.</summary>
    public double YoungSpread { get; init; } = 0.30;

    /// <summary>Old parts differ from grown ones in this much of what young ones do: hairs are shed once.</summary>
    public double OldShare { get; init; } = 0.7;

    /// <summary>Saplings and shoots from a cut: lobed otherwise, of the same hairs and colours mostly.</summary>
    public double SaplingShare { get; init; } = 0.8;

    /// <summary>Leaves of the shade.</summary>
    public double ShadeShare { get; init; } = 0.4;

    /// <summary>Lowest and topmost leaves.</summary>
    public double PositionShare { get; init; } = 0.6;

    /// <summary>How far their sizes stray from those of the middle, on the logarithm.</summary>
    public double PositionSpread { get; init; } = 0.30;

    /// <summary>Seedlings have smaller leaves.</summary>
    public double SeedlingShift { get; init; } = -0.5;

    /// <summary>How far that strays.</summary>
    public double SeedlingSpread { get; init; } = 0.4;

    /// <summary>Of a seedling's characters at least this much may be otherwise: its first leaves are simpler.</summary>
    public double SeedlingLeast { get; init; } = 0.3;

    /// <summary>Colours fade in a press or on a wilted plant.</summary>
    public double PressedColour { get; init; } = 0.35;

    /// <summary>Dried parts are a little smaller.</summary>
    public double PressedShift { get; init; } = -0.08;

    /// <summary>How far that strays.</summary>
    public double PressedSpread { get; init; } = 0.1;

    /// <summary>Colours of a photograph.</summary>
    public double PhotographColour { get; init; } = 0.15;

    /// <summary>Sizes in a photograph.</summary>
    public double PhotographSpread { get; init; } = 0.2;

    private const double OfHairs = 0.325;
    private const double OfColour = 0.30;
    private const double OfForm = 0.25;
    private const double OfMargin = 0.2;
    private const double OfBase = 0.15;
    private const double OfOthers = 0.03;

    private static readonly Dictionary<string, double> ByQuality = new(StringComparer.Ordinal)
    {
        ["hair-density"] = OfHairs,
        ["hair-form"] = OfHairs,
        ["hair-length"] = OfHairs,
        ["hair-texture"] = OfHairs,
        ["hair-attitude"] = OfHairs,
        ["hair-place"] = OfHairs,
        ["hair-colour"] = OfHairs,
        ["margin-hairs"] = OfHairs,
        ["stickiness"] = OfHairs,
        ["colour"] = OfColour,
        ["colour-depth"] = OfColour,
        ["edge-colour"] = OfColour,
        ["lustre"] = OfColour,
        ["outline"] = OfForm,
        ["widest"] = OfForm,
        ["slenderness"] = OfForm,
        ["surface"] = OfForm,
        ["relief"] = OfForm,
        ["texture"] = OfForm,
        ["attitude"] = OfForm,
        ["lobing"] = OfMargin,
        ["lobe-depth"] = OfMargin,
        ["margin"] = OfMargin,
        ["tooth-shape"] = OfMargin,
        ["tooth-size"] = OfMargin,
        ["division"] = OfBase,
        ["base-form"] = OfBase,
        ["apex"] = OfBase,
    };

    // The older characters by their names.
    private static readonly (string Ending, double Change)[] ByName =
    [
        ("-hairs", OfHairs),
        ("-hairs-beneath", OfHairs),
        ("stipules", OfHairs),
        ("stipule-form", OfHairs),
        ("-colour", OfColour),
        ("-colour-beneath", OfColour),
        ("-upper-side", OfForm),
        ("-shape", OfForm),
        ("-attitude", OfForm),
        ("-substance", OfForm),
        ("bark-texture", OfForm),
        ("lobe-depth", OfMargin),
        ("lobe-number", OfMargin),
        ("-margin", OfMargin),
        ("-division", OfBase),
        ("-base", OfBase),
        ("-tip", OfBase),
        ("leaflet-number", OfBase),
    ];

    /// <summary>w of a character from a young part to a grown one; 0 for flowers, fruit and the site, which don't change so.</summary>
    public double ChangeOf(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        if (!AreOn || character.Organ is Organ.Flower or Organ.Fruit or Organ.Site or Organ.Inflorescence)
            return 0;
        if (character.IsQuantity && character.Kind != CharacterKind.Count)
            return 0;
        if (CharacterId.IsComposed(character.Id))
            return CharacterId.Read(character.Id) is { } id ? ByQuality.GetValueOrDefault(id.Quality, OfOthers) : OfOthers;
        foreach (var (ending, change) in ByName)
        {
            if (character.Id.EndsWith(ending, StringComparison.Ordinal))
                return change;
        }
        return OfOthers;
    }

    /// <summary>Whether a character is a colour.</summary>
    public bool IsColour(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        return AreOn
            && (
                CharacterId.IsComposed(character.Id)
                    ? CharacterId.Read(character.Id) is { Quality: "colour" or "colour-depth" or "edge-colour" or "lustre" }
                    : character.Id.Contains("-colour", StringComparison.Ordinal)
            );
    }
}
