using Garten.Core.Contracts;
using Garten.Core.Floras;
using Xunit;

namespace Garten.Core.Tests.Floras;

public sealed class ShortNamesTests
{
    private static Taxon Named(string name, string common = "", params string[] synonyms) =>
        new(
            name.ToLowerInvariant(),
            name,
            "",
            "species",
            "",
            "Vellornaceae",
            common,
            [],
            "",
            TaxonFacts.None with
            {
                Synonyms = synonyms,
                CommonNames = common.Length > 0 ? [common] : [],
            }
        );

    private static readonly ShortNames Names = new([
        Named("Vellorna alata", "winged vellorn"),
        Named("Vellorna alba", "white vellorn"),
        Named("Vellorna cinerea", "grey vellorn", "Salvia vellornoides"),
        Named("Verrana altissima"),
        Named("Ondrelia × media", "hybrid ondrel"),
        Named("Vellorna cinerea 'Fuscata'"),
        Named("Umbra nigra subsp. minor"),
        Named("Po ix"),
    ]);

    private static string[] Found(string typed, ShortNameFit? fit = null) =>
        [.. Names.Find(typed, 50).Where(f => fit is null || f.Fit == fit).Select(f => f.Taxon.Name)];

    [Theory]
    // Two and two, three and three, four and three: with or without a space.
    [InlineData("veal", "Vellorna alata|Vellorna alba|Verrana altissima")]
    [InlineData("ve al", "Vellorna alata|Vellorna alba|Verrana altissima")]
    [InlineData("velala", "Vellorna alata")]
    [InlineData("VELLALB", "Vellorna alba")]
    [InlineData("vel alb", "Vellorna alba")]
    [InlineData("v ci", "Vellorna cinerea")]
    // Marks of hybrids and words for ranks aren't typed.
    [InlineData("on me", "Ondrelia × media")]
    [InlineData("ummi", "Umbra nigra subsp. minor")]
    [InlineData("ve fu", "Vellorna cinerea 'Fuscata'")]
    // Names in full: scientific, older, common.
    [InlineData("vellorna cinerea", "Vellorna cinerea")]
    [InlineData("Salvia vellornoides", "Vellorna cinerea")]
    [InlineData("white vellorn", "Vellorna alba")]
    // Short names have no abbreviation, and are found by their beginnings.
    [InlineData("po i", "Po ix")]
    public void WhatIsTypedFitsAsAWhole(string typed, string names) =>
        Assert.Equal(names.Split('|').Order(StringComparer.Ordinal), Found(typed, ShortNameFit.Whole).Order(StringComparer.Ordinal));

    [Fact]
    public void BeginningsStandBehindWhatFitsAsAWholeAndOtherNamesBehindThem()
    {
        Assert.Equal(["Vellorna alata", "Vellorna alba", "Verrana altissima"], Found("vea", ShortNameFit.Beginning));
        Assert.Equal(["Vellorna alba"], Found("whi", ShortNameFit.OtherName));
        Assert.Equal(["Ondrelia × media", "Vellorna alata"], [.. Found("ondrel").Concat(Found("winged"))]);
        Assert.Empty(Found("zz"));
        Assert.Empty(Found("  "));
        Assert.Single(Names.Find("v", 1));
        Assert.Throws<ArgumentOutOfRangeException>(() => Names.Find("v", 0));
    }

    // Each taxon is found by each of its abbreviations as a whole, in any flora.
    [Fact]
    public void EveryAbbreviationFindsItsTaxon()
    {
        for (var seed = 0; seed < 30; seed++)
        {
            var random = new Random(seed);
            string Word(string letters) =>
                string.Concat(Enumerable.Range(0, random.Next(2, 9)).Select(_ => letters[random.Next(letters.Length)]));
            var taxa = Enumerable.Range(0, 60).Select(_ => Named($"V{Word("aeln")} {Word("aeln")}")).DistinctBy(t => t.Name).ToList();
            var names = new ShortNames(taxa);
            foreach (var taxon in taxa)
            {
                var words = taxon.Name.ToLowerInvariant().Split(' ');
                foreach (var (g, e) in new[] { (2, 2), (3, 3), (4, 3) })
                {
                    if (words[0].Length < g || words[1].Length < e)
                        continue;
                    foreach (var between in new[] { "", " " })
                        Assert.Contains(names.Find(words[0][..g] + between + words[1][..e], 500), f =>
                            f.Taxon.Name == taxon.Name && f.Fit == ShortNameFit.Whole
                        );
                }
            }
        }
    }
}
