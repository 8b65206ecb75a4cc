using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Core.Evidence;

/// <summary>What follows from the circumstances of the looks at a plant: how its sexes are shared, how long it lives.</summary>
public static class FollowingItems
{
    // So many days apart flowers were seen twice in a flowering: of a plant that has one sex first the other has come by then.
    private const int OverTheFlowering = 10;

    private static readonly string[] MaleParts = ["stamen", "anther", "filament", "pollen"];
    private static readonly string[] FemaleParts = ["ovary", "style", "stigma", "pistil", "carpel"];

    /// <summary>The sex that a plant has shown in all looks of which it was said; null where none was said, or several.</summary>
    public static PartSex? SexOf(IEnumerable<Observation> looks)
    {
        var sexes = looks
            .Where(o =>
                o.Outcome == Outcome.Seen && o.Context.Sex != PartSex.Unsaid && o.Context.Attachment != Attachment.PerhapsNeighbours
            )
            .Select(o => o.Context.Sex)
            .Distinct()
            .ToList();
        return sexes is [var only] ? only : null;
    }

    /// <summary>Whether a character is one of flowers of a sex, or of the fruit, which only the female ones have.</summary>
    public static bool IsOf(PartSex sex, Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        var parts = sex == PartSex.Male ? MaleParts : FemaleParts;
        return sex == PartSex.Female && character.Organ == Organ.Fruit
            || character.Organ is Organ.Flower && Array.Exists(parts, p => character.Id.Contains(p, StringComparison.Ordinal));
    }

    /// <summary>The character that says how sexes are shared; null where a table has none.</summary>
    public static Character? SharingOfSexes(IReadOnlyList<Character> characters)
    {
        ArgumentNullException.ThrowIfNull(characters);
        return characters.FirstOrDefault(c => c.IndexOf("dioecious") >= 0 && c.IndexOf("bisexual") >= 0);
    }

    /// <summary>Adds what follows, unless it was looked at itself.</summary>
    internal static void Add(List<EvidenceItem> items, CharacterTable table, List<Observation> looks)
    {
        AddWood(items, table, looks);
        AddSexes(items, table, looks);
        AddRosette(items, table, looks);
    }

    // States of a growth form that have wood.
    private static readonly string[] Woody = ["tree", "shrub", "dwarf", "climber"];

    // Bark and rings of the year are had by wood alone; scaly buds are had by few herbs, and at the ground. Pith, ligules, fronds and buds
    // alone imply nothing: rushes have pith, sedges ligules, herbs winter buds.
    private const double BarkWithoutWood = 0.02;
    private const double ScalesWithoutWood = 0.1;

    private static double WithoutWood(Character character) =>
        character.Organ == Organ.Bark || character.Id.Contains("annual-ring", StringComparison.Ordinal) ? BarkWithoutWood
        : character.Id.StartsWith("bud-scale", StringComparison.Ordinal) ? ScalesWithoutWood
        : 1;

    private static void AddWood(List<EvidenceItem> items, CharacterTable table, List<Observation> looks)
    {
        if (table.Find("growth-form") is not { IsQuantity: false } form || items.Exists(i => i.Character.Id == form.Id))
            return;
        var of = looks.FindAll(o =>
            o.Outcome == Outcome.Seen
            && o.Sureness != Sureness.Guess
            && o.Context.Attachment is Attachment.Unsaid or Attachment.Attached
            && table.Find(o.Character) is { } character
            && WithoutWood(character) < 1
            && (
                o.Readings.Count > 0
                || o.States.Any(s => character.IndexOf(s) is >= 0 and var i && i != EvidenceItem.AbsentState(character))
            )
        );
        if (of.Count == 0 || !form.States.Any(s => Woody.Contains(s.Id)))
            return;
        var least = of.Min(o => WithoutWood(table.Find(o.Character)!));
        items.Add(
            Item(
                form,
                [.. form.States.Select(s => Woody.Contains(s.Id) ? 1d : least)],
                least < ScalesWithoutWood ? "bark: it has wood" : "scaly buds: it has wood, most likely",
                "It follows from what was seen of it.",
                of
            )
        );
    }

    // The sex of the flowers, over the flowering rather than on one day: stamens may come days before the styles, and a plant of one sex
    // may bear a flower of the other. That there is no fruit says nothing of it.
    private static void AddSexes(List<EvidenceItem> items, CharacterTable table, List<Observation> looks)
    {
        var sexed = looks.FindAll(o =>
            o.Outcome == Outcome.Seen
            && o.Context.Sex != PartSex.Unsaid
            && o.Context.Attachment != Attachment.PerhapsNeighbours
            && table.Find(o.Character) is { Organ: Organ.Flower or Organ.Inflorescence or Organ.Fruit }
        );
        if (sexed.Count == 0 || SharingOfSexes(table.Characters) is not { } character || items.Exists(i => i.Character.Id == character.Id))
            return;
        var sexes = sexed.Select(o => o.Context.Sex).Distinct().ToList();
        var days = sexed.Select(o => DayText.TryRead(o.Date, out var day) ? day.DayNumber : 0).ToList();
        var isOver = days.Max() - days.Min() >= OverTheFlowering;
        var isOne = sexes is [PartSex.Male or PartSex.Female];
        var isApart = !sexes.Contains(PartSex.Both) && sexes.Count > 1;
        double Of(string state) =>
            state switch
            {
                "bisexual" => isOne ? 0.03
                : isApart ? 0.02
                : 0.95,
                "dioecious" => isOne ? 0.5
                : isApart ? 0.05
                : 0.03,
                "monoecious" => isOne
                    ? isOver
                        ? 0.08
                        : 0.25
                    : isApart
                        ? 0.8
                        : 0.3,
                // Some kinds have female plants and bisexual ones.
                _ => isOne ? 0.3 : 0.6,
            };
        var seen =
            isApart ? "male and female flowers on one plant"
            : isOne ? $"{(sexes[0] == PartSex.Male ? "male" : "female")} flowers only, {(isOver ? "over the flowering" : "on one day")}"
            : "both sexes in a flower";
        items.Add(Item(character, [.. character.States.Select(s => Of(s.Id))], seen, "It follows from the sexes of its flowers.", sexed));
    }

    // A rosette in winter that is fresh came up in autumn: of an annual that germinates then, or a new one for next summer. A worn one has
    // stood since spring: a biennial's first year, or a perennial's.
    private static void AddRosette(List<EvidenceItem> items, CharacterTable table, List<Observation> looks)
    {
        var rosette = looks.FindAll(o =>
            o.Outcome == Outcome.Seen
            && o.Context.Age != PartAge.Unsaid
            && DayText.TryRead(o.Date, out var day)
            && day.Month is >= 11 or <= 2
            && table.Find(o.Character) is { Organ: Organ.Leaf } character
            && (o.Context.Position == Position.Low || character.Id.StartsWith("basal-leaf", StringComparison.Ordinal))
        );
        if (
            rosette.Count == 0
            || table.Find("life-span") is not { } lives
            || lives.IndexOf("annual") < 0
            || items.Exists(i => i.Character.Id == lives.Id)
        )
            return;
        var isWorn = rosette.TrueForAll(o => o.Context.Age == PartAge.Old);
        double Of(string state) =>
            (state, isWorn) switch
            {
                ("annual", true) => 0.05,
                ("annual", false) => 0.9,
                ("biennial", true) => 0.6,
                ("biennial", false) => 0.6,
                (_, true) => 0.7,
                _ => 0.5,
            };
        var words = isWorn
            ? "a worn rosette in winter: it has stood since spring, as in a biennial’s first year or a wintergreen perennial"
            : "a fresh rosette in winter: it came up in autumn, of an annual or for next summer";
        items.Add(Item(lives, [.. lives.States.Select(s => Of(s.Id))], words, "It follows from the rosette.", rosette));
    }

    private static EvidenceItem Item(Character character, double[] given, string words, string reason, List<Observation> looks) =>
        new(character, [], false, false, null, 0, 0, looks.Min(o => o.Sureness), false, 1, reason, []) { Given = given, Derived = words };
}
