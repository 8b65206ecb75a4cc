using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Core.Seasons;
using Garten.Core.Surveys.SiteVisits;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Contracts;

public sealed class SiteVisitContractsTests
{
    private static Taxon Taxon(string name, params PhaseSpan[] year) =>
        new(
            name.Replace(' ', '-').ToLowerInvariant(),
            name,
            "",
            "species",
            "",
            "Vellornaceae",
            "",
            [],
            "",
            TaxonFacts.None with
            {
                Cells = ["B2"],
                Habitats = ["heath"],
                Phenology = year,
            }
        );

    private static readonly Taxon Alata = Taxon(
        "Vellorna alata",
        new PhaseSpan(Phenophase.Flower, 9, 12),
        new PhaseSpan(Phenophase.FullLeaf, 9, 19)
    );
    private static readonly Taxon Alba = Taxon("Vellorna alba");
    private static readonly Taxon Cinerea = Taxon("Vellorna cinerea", new PhaseSpan(Phenophase.Flower, 13, 15));

    private static ReadyFlora Flora() => new(new FloraPack("f", "F", [Alata, Alba, Cinerea], FloraColumns.Of([], []), SmallFlora.Seasons));

    [Theory]
    [InlineData("ve ci", "Vellorna cinerea", null, false, null)]
    [InlineData("velala f", "Vellorna alata", Abundance.Frequent, false, null)]
    [InlineData("velala lr", "Vellorna alata", Abundance.Rare, true, null)]
    [InlineData("ve alb 12", "Vellorna alba", null, false, 12)]
    [InlineData("ve al", "", null, false, null)]
    // What can be a part of the name is one: no abundance is taken of it.
    [InlineData("ve a", "", null, false, null)]
    [InlineData("zz f", "", Abundance.Frequent, false, null)]
    public void WhatIsTypedBehindANameIsTakenOnlyWhereItCantBePartOfIt(
        string typed,
        string meant,
        Abundance? abundance,
        bool isLocal,
        int? count
    )
    {
        var answer = new ShortNameRequest("f", typed).Find(Flora());
        Assert.Equal((meant, abundance, isLocal, count), (answer.Meant, answer.Abundance, answer.IsLocal, answer.Count));
    }

    [Fact]
    public void AListIsReadLineByLineAndNothingIsTakenInSilence()
    {
        var read = new NameListRequest("f", "1. Vellorna alata o\r\n\r\n• ve ci\tby the gate\n- velala\nve al\nNobody knows").Read(Flora());
        Assert.Equal(
            [
                "Vellorna alata o|Vellorna alata|False",
                "ve ci|Vellorna cinerea|False",
                "velala|Vellorna alata|True",
                "ve al||False",
                "Nobody knows||False",
            ],
            read.Select(r => $"{r.Text}|{r.Answer.Meant}|{r.IsAgain}")
        );
        Assert.Equal(2, read[3].Answer.Found.Count);
        Assert.Throws<RequestException>(() => new NameListRequest("f", string.Join('\n', Enumerable.Repeat("ve", 2_001))).Read(Flora()));
    }

    [Fact]
    public void AdviceTellsWhatIsNewMissingAndExpected()
    {
        var line = new ListLine(Guid.NewGuid(), "Vellorna alata", "", null, "", "Ilse", "", LineDetails.None);
        var advice = new ListAdviceRequest(
            "f",
            "2026-05-20",
            [line],
            new SiftPlace("B2", 100, ["heath"]),
            [new FoundBefore("Vellorna cinerea", [2024])]
        ).Tell(Flora());
        Assert.True(advice.Lines[0].IsNewHere);
        Assert.Equal("vellorna-alata", advice.Lines[0].Taxon);
        Assert.Equal(["Vellorna alba", "Vellorna cinerea"], advice.Lines[0].Kin.Select(k => k.Name));
        // In May it can't be told that it isn't there.
        Assert.Equal([("Vellorna cinerea", (bool?)false)], advice.SeenBefore.Select(a => (a.Name, a.CanBeTold)));
        Assert.Equal(["Vellorna alba"], advice.Expected.Select(a => a.Name));
        Assert.Throws<RequestException>(() => new ListAdviceRequest("f", "2026-05-20", [line], Most: 0).Tell(Flora()));
    }

    [Fact]
    public void AnInvasivePlantThatIsNewHereIsToBeTold()
    {
        var flora = new ReadyFlora(
            new FloraPack("f", "F", [Alata with { Cautions = [Caution.Invasive] }, Alba], FloraColumns.Of([], []), SmallFlora.Seasons)
        );
        ListLine Line(string name) => new(Guid.NewGuid(), name, "", null, "", "Ilse", "", LineDetails.None);
        bool[] Told(params FoundBefore[] before) =>
            [
                .. new ListAdviceRequest("f", "2026-05-20", [Line("Vellorna alata"), Line("Vellorna alba")], Before: before)
                    .Tell(flora)
                    .Lines.Select(l => l.IsToBeTold),
            ];
        Assert.Equal([true, false], Told());
        Assert.Equal([false, false], Told(new FoundBefore("Vellorna alata", [2024])));
    }
}
