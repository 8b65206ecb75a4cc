using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Confirmation;

/// <summary>Five made-up species of two genera, and a plant of the first seen whole.</summary>
internal static class ConfirmFlora
{
    public static readonly Character Base = States("base", Organ.Leaf, "wedge", "heart", "round") with
    {
        SeenIn = [Phenophase.FullLeaf],
        Reliability = 0.97,
    };
    public static readonly Character Colour = States("colour", Organ.Flower, "white", "yellow", "red") with
    {
        SeenIn = [Phenophase.Flower],
        Reliability = 0.97,
    };
    public static readonly Character Fruit = States("fruit", Organ.Fruit, "berry", "pod", "nut") with
    {
        SeenIn = [Phenophase.RipeFruit],
        Reliability = 0.97,
    };
    public static readonly Character Sap = States("sap", Organ.Stem, "clear", "milky") with { Handling = Handling.Cut, Reliability = 0.97 };
    public static readonly Character Pollen = States("pollen", Organ.Flower, "smooth", "spiny") with
    {
        Tool = Tool.Microscope,
        SeenIn = [Phenophase.Flower],
    };
    public static readonly Character Blade = Length("blade");
    public static readonly Character[] All = [Base, Colour, Fruit, Sap, Pollen, Blade];

    public static readonly TaxonFacts Here = TaxonFacts.None with
    {
        Cells = ["B2"],
        Habitats = ["hedge"],
        ElevationFrom = 0,
        ElevationTo = 300,
        Origin = Origin.Native,
        Phenology = [new(Phenophase.Flower, 8, 12), new(Phenophase.FullLeaf, 9, 18), new(Phenophase.RipeFruit, 17, 20)],
    };

    // The second differs in the fruit, the third in leaf and flower, the fourth in all but the fruit; the fifth only under the microscope
    // from the fourth.
    public static readonly TaxonDescription[] Described =
    [
        Describe(
            "alvena-montis",
            Is(Base, "heart"),
            Is(Colour, "white"),
            Is(Fruit, "berry"),
            Is(Sap, "clear"),
            Measures(Blade, "(30–)40–60(–70) mm")
        ),
        Describe(
            "alvena-palus",
            Is(Base, "heart"),
            Is(Colour, "white"),
            Is(Fruit, "pod"),
            Is(Sap, "clear"),
            Measures(Blade, "(30–)40–60(–70) mm")
        ),
        Describe(
            "alvena-lenta",
            Is(Base, "wedge"),
            Is(Colour, "yellow"),
            Is(Fruit, "berry"),
            Is(Sap, "clear"),
            Measures(Blade, "(120–)160–240(–280) mm")
        ),
        Describe(
            "brontia-alta",
            Is(Base, "round"),
            Is(Colour, "red"),
            Is(Fruit, "berry"),
            Is(Sap, "milky"),
            Is(Pollen, "smooth"),
            Measures(Blade, "(30–)40–60(–70) mm")
        ),
        Describe(
            "brontia-gemina",
            Is(Base, "round"),
            Is(Colour, "red"),
            Is(Fruit, "berry"),
            Is(Sap, "milky"),
            Is(Pollen, "spiny"),
            Measures(Blade, "(30–)40–60(–70) mm")
        ),
    ];

    public static readonly Taxon[] Taxa =
    [
        Taxon("alvena-montis", Here with { LookAlikes = ["alvena-palus"] }) with
        {
            Name = "Alvena montis",
            Cautions = [Caution.Irritant],
            CautionNote = "Its sap blisters.",
        },
        Taxon("alvena-palus", Here) with
        {
            Name = "Alvena palus",
        },
        Taxon("alvena-lenta", Here) with
        {
            Name = "Alvena lenta",
        },
        Taxon("brontia-alta", Here with { LookAlikes = ["brontia-gemina"] }, family: "Brontiaceae") with
        {
            Name = "Brontia alta",
        },
        Taxon("brontia-gemina", Here, family: "Brontiaceae") with
        {
            Name = "Brontia gemina",
        },
        new(
            "brontia-agg",
            "Brontia alta agg.",
            "",
            "aggregate",
            "",
            "Brontiaceae",
            "",
            [],
            "",
            TaxonFacts.None with
            {
                Members = ["brontia-alta", "brontia-gemina"],
            }
        ),
    ];

    // Nearly every plant is on the list, so that few looks decide. A sifter is for one caller at a time: each class makes its own.
    public static Sifter MakeSifter() => Sieve(All, Described, Taxa, new SiftOptions { NotOnList = 0.001 });

    public static readonly SiftPlace Hedge = new("B2", 100, ["hedge"]);
    public static readonly DateOnly June = new(2026, 6, 1);

    public static Observation On(string date, Character character, string state) => See(character, state) with { Date = date };

    // Leaf and flower in June, fruit in September, the sap.
    public static readonly Observation[] Full =
    [
        On("2026-06-01", Base, "heart"),
        On("2026-06-01", Colour, "white"),
        On("2026-09-20", Fruit, "berry"),
        On("2026-06-01", Sap, "clear"),
        Read(Blade, 45, 52, 50),
    ];

    public static ConfirmQuery Query(IReadOnlyList<Observation> sheet, string taxon = "alvena-montis") =>
        new(taxon, sheet, Hedge, June, GradeRules.ConfirmedList, null, [], false, false);
}
