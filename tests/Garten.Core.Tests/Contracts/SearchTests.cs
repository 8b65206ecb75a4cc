using Garten.Core.Contracts;
using Garten.Core.Floras;
using Xunit;

namespace Garten.Core.Tests.Contracts;

/// <summary>One search of everything: by the beginnings of words, whatever letters the keyboard has.</summary>
public sealed class SearchTests
{
    private static Findable Taxon(string name, params string[] words) => new(FoundKind.Taxon, name, name, words);

    private static readonly Findable[] Taxa =
    [
        Taxon("Vellorna alba", "white vellorn", "Vellorna candida"),
        Taxon("Vellorna", "vellorn"),
        Taxon("Alba vellornoides"),
    ];

    private static readonly Place Heath = new(Guid.NewGuid(), "Ålven Heath", "", 57, -11, 100, "", "B2", 120, ["wet heath"]);

    private static readonly TaggedPlant Oak = new(
        Guid.NewGuid(),
        "stile oak",
        Heath.Id,
        Heath.Name,
        ["Vellorna alba"],
        null,
        null,
        null,
        null
    );

    private static IReadOnlyList<Findable> Find(string text, IEnumerable<Findable>? taxa = null) =>
        new SearchIndex(Things.All().Concat(taxa ?? Taxa)).Find(text, null);

    private static readonly SearchedThings Things = new([Oak], [Heath], [new TitledKey("k", "Key to Vellorna")]);

    private static string[] Found(string text) => [.. Find(text).Select(f => f.Name)];

    [Theory]
    [InlineData("ve al", "Vellorna alba|Alba vellornoides|stile oak")]
    [InlineData("VELLORNA", "Vellorna|Vellorna alba|stile oak|Key to Vellorna")]
    [InlineData("candida", "Vellorna alba")]
    [InlineData("alven", "Ålven Heath")]
    [InlineData("ÅLVEN  heath ", "Ålven Heath")]
    [InlineData("b2", "Ålven Heath")]
    [InlineData("oak stile", "stile oak")]
    [InlineData("lorna", "")]
    [InlineData("   ", "")]
    public void BeginningsOfWordsFindInAnyOrder(string text, string names) =>
        Assert.Equal(names.Split('|', StringSplitOptions.RemoveEmptyEntries).Order(), Found(text).Order());

    [Fact]
    public void WhatIsJustCalledSoComesFirst()
    {
        Assert.Equal("Vellorna", Found("vellorna")[0]);
        Assert.Equal("Vellorna alba", Found("vellorna candida")[0]);
    }

    [Theory]
    [InlineData("in flower", "flower")]
    [InlineData("what is in flower here now", "flower")]
    [InlineData("ripe fruit", "fruit")]
    public void WordsOfTheSeasonFindWhatIsInSeason(string text, string id)
    {
        var first = Find(text)[0];
        Assert.Equal((FoundKind.Season, id), (first.Kind, first.Id));
    }

    [Fact]
    public void NoKindCrowdsTheOthersOut()
    {
        var found = Find("al", Enumerable.Range(0, 400).Select(i => Taxon($"Alvena a{i}")));
        Assert.Equal(SearchIndex.MostOfKind, found.Count(f => f.Kind == FoundKind.Taxon));
        Assert.Contains(found, f => f.Kind == FoundKind.Place);
    }

    [Theory]
    [InlineData("  Œuf   ŁĄKA ", "oeuf laka")]
    [InlineData("Straße", "strasse")]
    [InlineData("", "")]
    public void NamesAreFoldedAlikeOnEveryHost(string text, string plain) => Assert.Equal(plain, NameFold.Plain(text));

    [Fact]
    public void WhatIsHeldIsSearchedUntilSomethingElseIs()
    {
        var session = new CoreSession();
        string[] Searched(string text) => [.. new SearchRequest(text).Find(session).Select(f => f.Name)];
        IReadOnlyList<Guid> Plants(string text, Guid? place = null) => new FoundPlantsRequest(place, text).Find(session);
        Assert.Empty(Searched("oak"));
        Assert.Empty(Plants("oak"));

        Assert.Equal(3, Things.Hold(session));
        Assert.Equal(["stile oak"], Searched("oak"));
        Assert.Equal([Oak.Id], Plants("OAK"));
        Assert.Equal([Oak.Id], Plants("", Heath.Id));
        Assert.Empty(Plants("oak", Guid.NewGuid()));

        var elm = Oak with { Id = Guid.NewGuid(), Label = "stile elm" };
        new SearchedThings([elm, Oak with { Id = Guid.NewGuid(), PopulationId = Guid.NewGuid() }], [], []).Hold(session);
        Assert.Empty(Searched("heath"));
        Assert.Equal([elm.Id], Plants("vellorna"));
    }
}
