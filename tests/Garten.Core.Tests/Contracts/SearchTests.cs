using Garten.Core.Contracts;
using Garten.Core.Floras;
using Xunit;

namespace Garten.Core.Tests.Contracts;

/// <summary>One search of everything: by the beginnings of words, whatever letters the keyboard has.</summary>
public sealed class SearchTests
{
    private static Findable Taxon(string name, params string[] words) => new(FoundKind.Taxon, name, name, words);

    private static readonly Findable[] All =
    [
        Taxon("Vellorna alba", "white vellorn", "Vellorna candida"),
        Taxon("Vellorna", "vellorn"),
        Taxon("Alba vellornoides"),
        new(FoundKind.Place, "p", "Ålven Heath", ["B2", "wet heath"]),
        new(FoundKind.Plant, "t", "stile oak", ["Vellorna alba"]),
        new(FoundKind.Key, "k", "Key to Vellorna", []),
    ];

    private static string[] Found(string text) => [.. new SearchRequest(text, All).Find(new CoreSession()).Select(f => f.Name)];

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
        var first = new SearchRequest(text, All).Find(new CoreSession())[0];
        Assert.Equal((FoundKind.Season, id), (first.Kind, first.Id));
    }

    [Fact]
    public void NoKindCrowdsTheOthersOut()
    {
        var many = Enumerable.Range(0, 400).Select(i => Taxon($"Alvena a{i}")).Append(new Findable(FoundKind.Place, "p", "Alven", []));
        var found = new SearchRequest("al", [.. many]).Find(new CoreSession());
        Assert.Equal(SearchRequest.MostOfKind, found.Count(f => f.Kind == FoundKind.Taxon));
        Assert.Contains(found, f => f.Kind == FoundKind.Place);
    }

    [Theory]
    [InlineData("  Œuf   ŁĄKA ", "oeuf laka")]
    [InlineData("Straße", "strasse")]
    [InlineData("", "")]
    public void NamesAreFoldedAlikeOnEveryHost(string text, string plain) => Assert.Equal(plain, NameFold.Plain(text));
}
