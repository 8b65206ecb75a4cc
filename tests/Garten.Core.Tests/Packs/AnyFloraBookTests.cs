using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Packs;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Packs;

/// <summary>The pages of any flora.</summary>
public sealed class AnyFloraBookTests
{
    private static void Each(Action<AnyFlora, FloraBook> check) => AnyFlora.Each(500, seed =>
        {
            var any = new AnyFlora(seed);
            check(
                any,
                new FloraBook(new Flora("any", "Any", any.Taxa, new CharacterTable(any.Characters, any.Described, SmallFlora.Seasons)))
            );
        });

    [Fact]
    public void EveryTaxonHasItsPage() =>
        Each(
            (any, book) =>
            {
                foreach (var taxon in any.Taxa)
                {
                    var page = book.Page(taxon.Id, new KeyShelf([]), new DateOnly(2026, 6, 1))!;
                    Assert.Same(taxon, page.Taxon);
                    Assert.All(page.Prose, p => Assert.True(p.Items.Count > 0 && p.Text.Length > 1));
                    Assert.DoesNotContain(page.LookAlikes, l => l.Taxon.Id == taxon.Id);
                    Assert.All(page.LookAlikes, l => Assert.InRange(l.Separation, 0, 1));
                    Assert.InRange(page.KeyMarks.Count, 0, 4);
                    // Everything that is described, and nothing else, is told.
                    Assert.Equal(
                        book.Description(taxon.Id).Where(c => c.Applies).Select(c => c.Character).Order(StringComparer.Ordinal),
                        page.Prose.SelectMany(p => p.Items).Select(i => i.Character).Order(StringComparer.Ordinal)
                    );
                }
                Assert.Null(book.Page("no-such-taxon", new KeyShelf([]), new DateOnly(2026, 6, 1)));
                Assert.Empty(book.Description("no-such-taxon"));
            }
        );

    [Fact]
    public void EveryStateNamesTheTaxaThatShowIt() =>
        Each(
            (any, book) =>
            {
                foreach (var character in any.Characters.Where(c => !c.IsQuantity))
                {
                    var showing = book.Showing(character);
                    Assert.Equal(character.States.Select(s => s.Id), showing.Select(s => s.State));
                    foreach (var state in showing)
                    {
                        Assert.All(state.Taxa, t =>
                            Assert.Contains(
                                state.State,
                                book.Description(t.Id).Single(c => c.Character == character.Id).States.Select(s => s.State)
                            )
                        );
                    }
                }
            }
        );

    [Fact]
    public void AKeyThatNamesATaxonStandsOnItsPage()
    {
        var reading = KeyTextReader.Read(
            "Key to Genella\n1. Leaf grey ... Genella t0\n1. Leaf green ... 2\n2. Twigs winged ... Genella t1\n2. Twigs round ... Genella t0\n"
        );
        var key = new KeyVersion("k", Assert.Single(reading.Keys));
        var taxa = new[] { SmallFlora.Taxon("t0") with { Name = "Genella t0" }, SmallFlora.Taxon("t1") with { Name = "Genella t1" } };
        var book = new FloraBook(new Flora("any", "Any", taxa, CharacterTable.Empty));
        var page = book.Page("t0", new KeyShelf([key], taxa), new DateOnly(2026, 6, 1))!;
        Assert.Equal([("1", 0), ("2", 1)], page.Keys.Select(m => (m.Couplet, m.Lead)));
        Assert.Equal(
            [("2", 0)],
            book.Page("t1", new KeyShelf([key], taxa), new DateOnly(2026, 6, 1))!.Keys.Select(m => (m.Couplet, m.Lead))
        );
    }
}
