using CsCheck;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Xunit;

namespace Garten.Core.Tests.Keys;

/// <summary>Law: a key written out in either layout and read again is the same key.</summary>
public sealed class KeyRoundTripTests
{
    private static readonly string[] Organs =
    [
        "Leaves",
        "Twigs",
        "Bark of the trunk",
        "fruit",
        "Flowers",
        "petals",
        "buds (of the year)",
        "Capsule c. 5 mm",
    ];
    private static readonly string[] Says =
    [
        "opposite",
        "alternate, toothed",
        "3–6 cm long",
        "hairy beneath, at least on the veins",
        "4 or 5",
        "5",
        "red; or nearly so",
        "rough (like sandpaper; rarely smooth)",
        "up to 2.5 m",
        "absent",
    ];
    private static readonly string[] Genera = ["Vellorna", "Carpessa", "Ondrelia", "Tharsina"];
    private static readonly string[] Epithets =
    [
        "alba",
        "nigra",
        "× media",
        "torvanica subsp. minor",
        "rubra agg.",
        "palustris var. longipes",
        "sp.",
    ];
    private static readonly string[] Authors = ["", "Hask.", "(Hask.) Ormdal", "Brekke & Ormdal", "Thorn ex Wood"];
    private static readonly string[] Pages = ["", "", "12", "40–44"];

    private static Gen<string> AnyOf(params string[] texts) => Gen.Int[0, texts.Length - 1].Select(i => texts[i]);

    private static readonly Gen<IReadOnlyList<string>> Statements = Gen.Select(AnyOf(Organs), AnyOf(Says))
        .List[1, 4]
        .Select(parts => (IReadOnlyList<string>)[.. parts.SelectMany(p => StatementSplitter.Split($"{p.Item1} {p.Item2}"))]);

    private static readonly Gen<LeadDestination> Taxon = Gen.Select(AnyOf(Genera), AnyOf(Epithets), AnyOf(Authors), AnyOf(Pages))
        .Select(
            (genus, epithet, author, page) =>
            {
                var name = TaxonName.Parse($"{genus} {epithet} {author}".Trim());
                return new LeadDestination(DestinationKind.Taxon, name.Name, name, page);
            }
        );

    private static readonly Gen<LeadDestination> End = Gen.Frequency(
        (6, Taxon),
        (1, AnyOf("Key B", "Key to the umbrisses", "Group 4").Select(k => new LeadDestination(DestinationKind.Key, k)))
    );

    // A tree of couplets: each new one hangs on a lead that ended until then; sometimes a lead joins another branch further down.
    private static readonly Gen<Key> Keys = Gen.Select(Gen.Int[1, 25], Gen.Int[0, int.MaxValue])
        .SelectMany(
            (couplets, seed) =>
                Gen.Select(Gen.Int[2, 4].Array[couplets], Statements.Array[couplets * 4], End.Array[couplets * 4])
                    .Select((leads, statements, ends) => Build(couplets, seed, leads, statements, ends))
        );

    private static Key Build(int count, int seed, int[] leads, IReadOnlyList<string>[] statements, LeadDestination[] ends)
    {
        var random = new Random(seed);
        var destinations = leads.Select((n, c) => Enumerable.Range(0, n).Select(l => ends[c * 4 + l]).ToArray()).ToArray();
        for (var child = 1; child < count; child++)
        {
            var free = Enumerable
                .Range(0, child)
                .SelectMany(p => Enumerable.Range(0, leads[p]).Select(l => (p, l)))
                .Where(x => destinations[x.p][x.l].Kind != DestinationKind.Couplet)
                .ToList();
            var (parent, lead) = free[random.Next(free.Count)];
            destinations[parent][lead] = new LeadDestination(DestinationKind.Couplet, $"{child + 1}");
        }
        if (count > 4 && random.Next(3) == 0)
            destinations[1][0] = new LeadDestination(DestinationKind.Couplet, $"{count}");
        return new Key(
            "Key to the woody plants",
            KeyLayout.Bracketed,
            ["For leaves from a sunny shoot."],
            [.. destinations.Select((d, c) => new Couplet($"{c + 1}", [.. d.Select((to, l) => new Lead(statements[c * 4 + l], to))]))]
        );
    }

    private static bool HasAllCouplets(Key key)
    {
        var reached = new HashSet<string> { key.Couplets[0].Label };
        var more = new Queue<Couplet>([key.Couplets[0]]);
        while (more.TryDequeue(out var couplet))
        {
            foreach (
                var to in couplet.Leads.Select(l => l.Destination!).Where(d => d.Kind == DestinationKind.Couplet && reached.Add(d.Target))
            )
                more.Enqueue(key.Couplets.First(c => c.Label == to.Target));
        }
        return reached.Count == key.Couplets.Count;
    }

    [Fact]
    public void WrittenInBracketsAndReadAgainIsTheSame() =>
        Keys.Sample(
            key =>
            {
                var again = KeyTextReader.Read(KeyTextWriter.Write(key, KeyLayout.Bracketed)).Keys.Single();
                Assert.Equal(key.Title, again.Title);
                Assert.Equal(key.Notes, again.Notes);
                Assert.Equal(KeyOutline.Of(key), KeyOutline.Of(again));
                Assert.Equal(KeyHash.Of(key), KeyHash.Of(again));
            },
            iter: 600
        );

    [Fact]
    public void WrittenIndentedAndReadAgainIsTheSame() =>
        Keys.Where(HasAllCouplets)
            .Sample(
                key =>
                {
                    var again = KeyTextReader.Read(KeyTextWriter.Write(key, KeyLayout.Indented)).Keys.Single();
                    Assert.Equal(key.Title, again.Title);
                    Assert.Equal(KeyOutline.Of(key), KeyOutline.Of(again));
                },
                iter: 600
            );

    [Fact]
    public void NoTextWhateverMakesItThrow() =>
        Gen.OneOf(
                Gen.String[0, 400],
                AnyOf(
                    "1. ",
                    "1a ",
                    "– ",
                    "(2) ",
                    "...",
                    "\t",
                    "\n",
                    "  ",
                    "Leaves",
                    " red",
                    "; ",
                    "Vellorna alba",
                    " × ",
                    "(p. 3)",
                    "Key B",
                    "go to ",
                    "2",
                    "12",
                    "'",
                    "*",
                    "_",
                    ")",
                    "(",
                    "\u00AD",
                    "\r\n"
                )
                    .List[0, 120]
                    .Select(string.Concat)
            )
            .Sample(text => Assert.NotNull(KeyTextReader.Read(text)), iter: 3000);
}
