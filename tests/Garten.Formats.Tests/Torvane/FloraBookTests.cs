using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Packs;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>The demo's flora as it is read: names, look-alikes, prose, key marks.</summary>
public sealed class FloraBookTests
{
    private static readonly FloraBook Book = new(new Flora("torvane", "Torvane", TorvaneFlora.Taxa, TorvaneFlora.Table));

    private static TaxonPage Page(string id, int month = 6) => Book.Page(id, TorvaneFlora.Shelf.Keys, new DateOnly(2026, month, 1))!;

    [Theory]
    [InlineData("vellorna alata", "Vellorna alata", "")]
    [InlineData("ve al", "Vellorna alata", "")]
    [InlineData("velorna alata", "Vellorna alata", "")]
    [InlineData("winged", "Vellorna alata", "winged vellorn")]
    [InlineData("cicorra cerea", "Anthressa cerea", "Cicorra cerea")]
    [InlineData("dell bell", "Convessa fallax", "dell bell")]
    [InlineData("x media", "Ondrelia × media", "")]
    public void TaxaAreFoundByAnyName(string text, string name, string matched)
    {
        var first = TaxonSearch.Find(TorvaneFlora.Taxa, new TaxonQuery(text.Replace("x ", "× ", StringComparison.Ordinal)))[0];
        Assert.Equal((name, matched), (first.Taxon.Name, first.Matched));
    }

    /// <summary>Where no server lists a flora or makes the page of a taxon, the core does it of the pack: but for the units that were
    /// typed, which the pack hasn't, it is the same.</summary>
    [Fact]
    public void OfThePackTheSameListsAndPagesAreMade()
    {
        using var ready = TorvaneFlora.MakeReady();
        foreach (
            var (query, asked) in new (TaxonQuery, TaxonListRequest)[]
            {
                (new(), new("torvane")),
                (new("ve al"), new("torvane", "ve al")),
                (new(Family: "Alloraceae"), new("torvane", Family: "Alloraceae")),
                (new(Origin: Origin.Introduced), new("torvane", Origin: Origin.Introduced)),
                (new(Day: new DateOnly(2026, 6, 1), Cell: "b2"), new("torvane", Day: "2026-06-01", Cell: "B2")),
            }
        )
        {
            var (server, own) = (TaxonList.Of(Book, query, 0), asked.List(ready));
            Assert.Equal(server.Found, own.Found);
            Assert.Equal(server.Families, own.Families);
            Assert.Equal(server.GrowthForms, own.GrowthForms);
            Assert.Equal(
                server.Taxa.Select(t => (t.Taxon.Id, t.Matched, string.Join(' ', t.Visible))),
                own.Taxa.Select(t => (t.Taxon.Id, t.Matched, string.Join(' ', t.Visible)))
            );
        }
        // Genera and aggregates are described in the flora alone.
        foreach (var taxon in TorvaneFlora.Taxa.Where(t => ready.Pack.Columns.IndexOf(t.Id) >= 0))
        {
            var (server, own) = (
                Page(taxon.Id),
                new TaxonPageRequest("torvane", taxon.Id, "2026-06-01").Make(ready, TorvaneFlora.Shelf.Keys)
            );
            Assert.Equal(server.Taxon.Name, own.Taxon.Name);
            Assert.Equal(server.Line.Select(t => t.Id), own.Line.Select(t => t.Id));
            Assert.Equal(server.Below.Select(t => t.Id), own.Below.Select(t => t.Id));
            Assert.Equal(server.Related.Select(t => t.Id), own.Related.Select(t => t.Id));
            Assert.Equal(server.Keys, own.Keys);
            Assert.Equal(server.Cells, own.Cells);
            Assert.Equal(server.Description.Select(d => d.Character).Order(), own.Description.Select(d => d.Character).Order());
            Assert.Equal(
                server.LookAlikes.Select(l => (l.Taxon.Id, l.Character, Math.Round(l.Separation, 4), l.CanBeSeen)),
                own.LookAlikes.Select(l => (l.Taxon.Id, l.Character, Math.Round(l.Separation, 4), l.CanBeSeen))
            );
        }
        Assert.Throws<RequestException>(() => new TaxonPageRequest("torvane", "nobody", "2026-06-01").Make(ready, TorvaneFlora.Shelf.Keys));
        Assert.Throws<RequestException>(() => new TaxonListRequest("torvane", Day: "soon").List(ready));
    }

    [Fact]
    public void ACommonNameThatIsSharedNamesBoth() =>
        Assert.Equal("Anthressa cerea", Assert.Single(Page("cicorra-maculosa").Namesakes).Name);

    [Fact]
    public void EveryLookAlikeHasADifferenceThatCounts() =>
        Assert.All(
            TorvaneFlora
                .Taxa.Where(t => t.Rank is "species" or "hybrid")
                .SelectMany(t => Page(t.Id).LookAlikes.Select(l => (t.Name, Alike: l))),
            x => Assert.True(x.Alike.Separation >= 0.5, $"{x.Name} and {x.Alike.Taxon.Name}: {x.Alike.Character} {x.Alike.Separation}")
        );

    [Fact]
    public void WhatCanBeSeenTodayGoesBeforeWhatCanNot()
    {
        // The garlic smell in May; in January neither shows a leaf.
        var may = Page("allora-sylvatica", 5).LookAlikes.Single(l => l.Taxon.Id == "convessa-fallax");
        Assert.True(may.CanBeSeen);
        Assert.True(may.Separation >= 0.8);
    }

    [Fact]
    public void AHybridShowsItsParentsAndAnAggregateItsMembers()
    {
        Assert.Equal(
            ["Rubaxa fruticans", "Rubaxa fruticans agg.", "Rubaxa glaucina"],
            Page("rubaxa-x-incerta").Related.Select(t => t.Name).Order(StringComparer.Ordinal)
        );
        Assert.Equal(
            ["Crepessa ambigua", "Crepessa hirsuta"],
            Page("crepessa-hirsuta-agg").Related.Select(t => t.Name).Order(StringComparer.Ordinal)
        );
        Assert.Contains(Page("lychnora-bipartita").Below, t => t.Rank == "cultivar");
    }

    [Fact]
    public void TheDescriptionIsInTheStyleOfFloras()
    {
        var prose = Page("brommaria-mollis").Prose;
        var leaf = prose.Single(p => p.Organ == Organ.Leaf).Text;
        Assert.Contains("sheath closed", leaf, StringComparison.Ordinal);
        Assert.Contains("1–2.5 mm", leaf, StringComparison.Ordinal);
        Assert.Contains("tip of the ligule blunt or torn", leaf, StringComparison.Ordinal);
        Assert.Equal(prose.Select(p => p.Organ).Order(), prose.Select(p => p.Organ));
        Assert.All(TorvaneFlora.Taxa, t =>
            Assert.All(Page(t.Id).Prose, p => Assert.DoesNotContain("unknown", p.Text, StringComparison.Ordinal))
        );
    }

    [Fact]
    public void AKeyMarkIsWhatFewOthersHave()
    {
        var marks = Page("vellorna-alata").KeyMarks;
        Assert.Equal(("twig-wings", 0), (marks[0].Character, marks[0].Others));
        Assert.True(marks.Count > 1);
    }

    [Fact]
    public void ItStandsInItsKeys() =>
        Assert.Equal(
            ["Key to Vellorna", "Key to the leafless twigs of Torvane"],
            Page("vellorna-alata").Keys.Select(k => k.Title).Order(StringComparer.Ordinal)
        );

    [Fact]
    public void WhatIsOftenMisreadTakesItsPartOfTheScorings()
    {
        // Three states, reliability 0.9; the taxon has the first and is taken for the second in one scoring of five:
        // P(scored second) = 0.8 · 0.05 + 0.2 · 0.9 = 0.22; without the mark 0.05.
        var character = new Character(
            "x",
            "x",
            Organ.Leaf,
            CharacterKind.Categorical,
            [.. "abc".Select(c => new CharacterState($"{c}", $"{c}", "", []))],
            [],
            [],
            0.9,
            0.9,
            5,
            Tool.Eye,
            Handling.Look,
            []
        );
        var cell = DescriptionCell.Read("a | !b", character, out var problem)!;
        Assert.Null(problem);
        var looks = new Observation(
            Guid.NewGuid(),
            "x",
            Outcome.Seen,
            ["b"],
            false,
            [],
            0,
            0,
            Sureness.Sure,
            new(),
            Tool.Eye,
            "2026-06-01",
            ""
        );
        var table = new CharacterTable([character], [], []);
        var item = EvidenceItem.Pool([looks], table, EvidenceOptions.Default)[0];
        Assert.Equal(0.22, new Likelihood([new TaxonDescription("t", [cell])]).Raw(item, cell), 9);
        Assert.Equal(0.05, new Likelihood([new TaxonDescription("t", [cell])]).Raw(item, cell with { Misread = null }), 9);
    }

    [Fact]
    public void TablesAreJoinedAndACharacterOfOtherStatesKeepsApart()
    {
        Character Of(params string[] states) =>
            new(
                "shape",
                "shape",
                Organ.Leaf,
                CharacterKind.Categorical,
                [.. states.Select(s => new CharacterState(s, s, "", []))],
                [],
                [],
                0.9,
                0.9,
                5,
                Tool.Eye,
                Handling.Look,
                []
            );
        TaxonDescription Described(string taxon, string state) =>
            new(taxon, [new CharacterDescription("shape", [new StateShare(state, 1)])]);
        var joined = CharacterTable.Join([
            new([Of("a", "b")], [Described("one", "a")], []),
            new([Of("a", "c")], [Described("two", "c")], []),
            new([Of("a", "b")], [Described("three", "b")], []),
        ]);
        Assert.Equal(["shape", "2/shape"], joined.Characters.Select(c => c.Id));
        Assert.Equal(["shape", "2/shape", "shape"], joined.Descriptions.Select(d => d.Characters[0].Character));
    }

    [Fact]
    public void ASeriesUpTheStemIsACharacterOfItsOwn()
    {
        Reading At(double value, string place) => new(value, "", 1, At: place);
        Observation Leaves(params Reading[] readings) =>
            new(Guid.NewGuid(), "leaf-length", Outcome.Seen, [], false, readings, 0, 0, Sureness.Sure, new(), Tool.Ruler, "2026-06-15", "");
        EvidenceItem? Trend(Observation look) =>
            EvidenceItem.Pool([look], TorvaneFlora.Table, EvidenceOptions.Default).FirstOrDefault(i => i.Character.Id == "leaf-size-trend");
        // 80, 62 and 40 mm from low to top: down to a half, more than a tenth.
        var item = Trend(Leaves(At(80, "low"), At(62, "middle"), At(40, "top")))!;
        Assert.Equal("falling", item.Character.States[Assert.Single(item.States)].Id);
        Assert.Equal("level", Trend(Leaves(At(80, "low"), At(84, "top")))!.Character.States[1].Id);
        Assert.Null(Trend(Leaves(At(80, "low"), At(84, "low"))));
    }
}
