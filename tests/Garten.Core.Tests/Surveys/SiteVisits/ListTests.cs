using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;
using Xunit;

namespace Garten.Core.Tests.Surveys.SiteVisits;

public sealed class ListTests
{
    private static ListLine Line(string name, string part = "", string by = "Ilse", Guid? supersedes = null, bool isWithdrawn = false) =>
        new(
            Guid.NewGuid(),
            name,
            name.Length > 0 ? "" : "unnamed 1",
            null,
            part,
            by,
            "",
            LineDetails.None,
            null,
            null,
            null,
            supersedes,
            isWithdrawn
        );

    [Fact]
    public void OneTaxonInOnePartIsOneRecordWithAllItsObservers()
    {
        var records = ListedTaxon.Of([
            Line("Alvena alba", "ditch"),
            Line("Alvena nigra"),
            Line("Alvena alba", "ditch", "Örn"),
            Line("Alvena alba", "hay"),
            Line("Alvena alba", "ditch", "Ilse"),
        ]);
        Assert.Equal(["Alvena alba ditch", "Alvena nigra ", "Alvena alba hay"], records.Select(r => $"{r.Called} {r.Compartment}"));
        Assert.Equal(["Ilse", "Örn"], records[0].Observers);
        Assert.Equal(3, records[0].Lines.Count);
    }

    [Fact]
    public void WhatIsWithdrawnOrSupersededDoesntHold()
    {
        var (first, slip) = (Line("Alvena alba"), Line("Alvena nigra", isWithdrawn: true));
        var better = Line("Alvena rubra", supersedes: first.Id);
        Assert.Equal([better], ListLine.Holding([first, slip, better]));
        // A correction that is taken back brings back what it corrected; two corrections of one line both hold.
        Assert.Equal([first], ListLine.Holding([first, slip, better with { IsWithdrawn = true }]));
        var other = Line("Alvena palus", supersedes: first.Id);
        Assert.Equal([better, other], ListLine.Holding([first, better, other]));
    }

    [Fact]
    public void WhatWasNotedIsSaidInShortWords() =>
        Assert.Equal(
            "locally frequent · 1 shoot · in flower · both sexes · planted (in rows) · with Alvena nigra · by the gate",
            new LineDetails(
                Abundance.Frequent,
                true,
                1,
                CountUnit.Shoots,
                Phenophase.Flower,
                PartSex.Both,
                WildOrPlanted.Planted,
                "in rows",
                ["Alvena nigra"],
                "by the gate"
            ).InWords()
        );

    [Fact]
    public void DetailsThatContradictThemselvesAreSaid()
    {
        Assert.Null(LineDetails.None.Problem());
        Assert.NotNull(new LineDetails(Count: 0, Unit: CountUnit.Stems).Problem());
        Assert.NotNull(new LineDetails(Count: -2, Unit: CountUnit.Stems).Problem());
        Assert.NotNull(new LineDetails(Count: 3).Problem());
        Assert.NotNull(new LineDetails(Unit: CountUnit.Stems).Problem());
        Assert.NotNull(new LineDetails(IsLocal: true).Problem());
        Assert.NotNull(new LineDetails(Associates: [.. Enumerable.Repeat("x", 31)]).Problem());
    }

    private static Taxon Taxon(string name, TaxonFacts facts, string rank = "species") =>
        new(name.Replace(' ', '-').ToLowerInvariant(), name, "", rank, "", "Alvenaceae", "", [], "", facts);

    private static readonly Taxon Alba = Taxon(
        "Alvena alba",
        TaxonFacts.None with
        {
            Cells = ["B2"],
            Habitats = ["heath"],
            ElevationFrom = 50,
            ElevationTo = 200,
            Phenology = [new PhaseSpan(Phenophase.Flower, 9, 12), new PhaseSpan(Phenophase.FullLeaf, 9, 19)],
        }
    );

    private static readonly Taxon Planted = Taxon("Alvena culta", TaxonFacts.None with { Establishment = "planted" });

    private static readonly Taxon Group = Taxon("Alvena alba agg.", TaxonFacts.None with { Members = ["alvena-minor"] }, "aggregate");

    private static readonly Taxon Minor = Taxon("Alvena minor", TaxonFacts.None);

    private static string[] Doubts(ListLine line, SiftPlace? place = null, string day = "2026-05-20", string foundBefore = "") =>
        [
            .. new LineDoubts(
                [Alba, Planted, Group, Minor],
                place ?? new SiftPlace("B2", 100, ["heath"]),
                DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture),
                new HashSet<string> { foundBefore }
            )
                .Of(line)
                .Select(d => d.Kind.ToString()),
        ];

    [Fact]
    public void DoubtsAreOfSeasonHeightPlaceNameAndGroup()
    {
        var alba = Line("Alvena alba");
        var flowering = alba with { Details = new LineDetails(Phase: Phenophase.Flower) };
        Assert.Empty(Doubts(alba));
        Assert.Empty(Doubts(flowering));
        // A month beside its season nobody wonders yet; the flowers of October are asked about.
        Assert.Empty(Doubts(flowering, day: "2026-04-05"));
        Assert.Equal(["Season"], Doubts(flowering, day: "2026-10-10"));
        Assert.Equal(["Presence"], Doubts(alba, new SiftPlace("C4", 100, ["heath"])));
        Assert.Empty(Doubts(alba, new SiftPlace("C4", 100, ["heath"]), foundBefore: "Alvena alba"));
        Assert.Equal(["Elevation"], Doubts(alba, new SiftPlace("B2", 240, ["heath"])));
        Assert.Empty(Doubts(alba, new SiftPlace("B2", 220, ["heath"])));
        Assert.Equal(["Habitat"], Doubts(alba, new SiftPlace("B2", 100, ["marsh"])));
        Assert.Empty(Doubts(alba, new SiftPlace()));
        Assert.Equal(["Name"], Doubts(Line("Alvena ignota")));
        Assert.Empty(Doubts(Line("")));
        Assert.Equal(["Planted"], Doubts(Line("Alvena culta")));
        Assert.Empty(Doubts(Line("Alvena culta") with { Details = new LineDetails(Growth: WildOrPlanted.Wild) }));
        // One of a critical group is asked about, unless a plant with a sheet of its own stands for it.
        Assert.Equal(["Critical"], Doubts(Line("Alvena minor")));
        Assert.Empty(Doubts(Line("Alvena minor") with { PlantId = Guid.NewGuid() }));
    }

    [Fact]
    public void WhatShowsNothingCantBeSoughtInVain()
    {
        Assert.True(Absence.CanBeToldOn(Alba, new DateOnly(2026, 6, 1)));
        Assert.False(Absence.CanBeToldOn(Alba, new DateOnly(2026, 1, 10)));
        Assert.Null(Absence.CanBeToldOn(Minor, new DateOnly(2026, 1, 10)));
        Assert.Null(Absence.CanBeToldOn(null, new DateOnly(2026, 1, 10)));
    }
}
