using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Xunit;

namespace Garten.Formats.Tests.Language;

/// <summary>Keys pasted from a book, used at once: their taxa are sifted and contrasted by their own statements alone.</summary>
public sealed class KeyFloraTests(ITestOutputHelper output)
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Language", "Keys");

    private static (BenchShelf Shelf, KeyVersion Version) Shelf(string file)
    {
        var key = KeyTextReader.Read(File.ReadAllText(Path.Combine(Folder, file))).Keys[0];
        var version = new KeyVersion(KeyHash.Of(key), key);
        var table = CharacterTable.Empty with { Botany = ShippedVocabulary.Botany };
        return (new BenchShelf(new KeyShelf([version]), table, []), version);
    }

    // Keys of the couplets of a gold file: of each the first lead ends at a name, the second one goes on.
    private static IEnumerable<(string Name, BenchShelf Shelf, KeyVersion Version)> OfGold(string file)
    {
        foreach (var (leads, k) in GoldFile.Keys(file).Select((l, k) => (l, k)))
        {
            var couplets = leads.Select(l => string.Join("; ", l.Select(s => s.Text))).Chunk(2).Where(c => c.Length == 2).ToList();
            var text = $"Key {k + 1} of {file}\n\n";
            for (var c = 0; c < couplets.Count; c++)
            {
                var last = c == couplets.Count - 1 ? "Alba ultima" : $"{c + 2}";
                text += $"{c + 1}. {couplets[c][0]} ... Alba species{(char)('a' + c)}\n{c + 1}. {couplets[c][1]} ... {last}\n";
            }
            var key = Assert.Single(KeyTextReader.Read(text).Keys);
            var version = new KeyVersion(KeyHash.Of(key), key);
            var table = CharacterTable.Empty with { Botany = ShippedVocabulary.Botany };
            yield return ($"{file} {k + 1}", new BenchShelf(new KeyShelf([version]), table, []), version);
        }
    }

    // Fifteen keys over all groups of plants: plants drawn from their own statements, sifted, and followed
    // through the key. Couplets of which nothing is weighed are answered by the person, as they would be.
    [Fact]
    public void FifteenKeysNameThePlantsDrawnFromTheirStatements()
    {
        var keys = Files
            .Select(f => (Name: (string)f, Made: Shelf(f)))
            .Select(f => (f.Name, f.Made.Shelf, f.Made.Version))
            .Concat(OfGold("eighth.txt"))
            .Concat(OfGold("ninth.txt"))
            .ToList();
        Assert.Equal(15, keys.Count);
        int all = 0,
            sifted = 0,
            followed = 0;
        foreach (var (name, shelf, version) in keys)
        {
            var flora = KeyFlora.Of(shelf, version, "key");
            var sifter = ReadyFlora.Read(ReadyFlora.Write(flora)).With(ShippedVocabulary.Botany).Sifter;
            var (own, right, through) = (0, 0, 0);
            foreach (var taxon in flora.Table!.Descriptions)
            {
                var called = flora.Taxa.Single(t => t.Id == taxon.Taxon).Name;
                var sheet = Sheet(taxon, sifter, own);
                own++;
                if (sifter.Sift(new SiftQuery(sheet)).Standing.First(s => s.Taxon != Sifter.NotOnList).Taxon == taxon.Taxon)
                    right++;
                if (Follow(shelf, version, called, sheet) is { } end && end == called)
                    through++;
            }
            output.WriteLine($"{name}: of {own} plants {right} named by sifting, {through} by following");
            (all, sifted, followed) = (all + own, sifted + right, followed + through);
        }
        output.WriteLine($"of {all} plants {sifted} named by sifting, {followed} by following");
        const double least = 0.9;
        Assert.True(sifted >= least * all, $"sifted {sifted} of {all}");
        Assert.True(followed >= least * all, $"followed {followed} of {all}");
    }

    private static List<Observation> Sheet(TaxonDescription taxon, Sifter sifter, int seed)
    {
        var plant = new SimulatedPlant(taxon.Characters, new Random(seed));
        return
        [
            .. taxon
                .Characters.Where(c => !c.Character.StartsWith("couplet-", StringComparison.Ordinal))
                .Select(c => plant.Look(sifter.Columns.Find(c.Character)!.Character))
                .OfType<Observation>(),
        ];
    }

    private static string? Follow(BenchShelf shelf, KeyVersion version, string taxon, List<Observation> sheet)
    {
        List<TrailAnswer> answers = [];
        while (true)
        {
            var bench = KeyBench.Follow(shelf, version.Hash, answers, sheet, [], new DateOnly(2027, 6, 1));
            if (bench.Walk.Open is not [var open, ..])
                return bench.Walk.Standing is [var only] ? only.Name : bench.Ends.Where(e => e.OnTrail).MaxBy(e => e.Share)?.Name;
            // What the sheet leaves open a person decides by the words, where the plant lies behind one of the leads.
            var leads = Enumerable.Range(0, open.Couplet.Leads.Count).Where(l => Leads(version.Key, open.Couplet.Leads[l], taxon)).ToList();
            answers.Add(new(version.Hash, open.Couplet.Label, leads.Count == 1 ? leads[0] : null));
        }
    }

    private static bool Leads(Key key, Lead lead, string taxon) =>
        lead.Destination switch
        {
            { Kind: DestinationKind.Taxon } end => end.Target == taxon || (end.Others ?? []).Any(o => o.Name == taxon),
            { Kind: DestinationKind.Couplet } to => key.Couplets.Single(c => c.Label == to.Target).Leads.Any(l => Leads(key, l, taxon)),
            _ => false,
        };

    public static TheoryData<string> Files => [.. Directory.EnumerateFiles(Folder, "*.txt").Select(f => Path.GetFileName(f)).Order()];

    [Theory]
    [MemberData(nameof(Files))]
    public void APlantDrawnFromAKeysStatementsIsNamedByThem(string file)
    {
        var (shelf, version) = Shelf(file);
        var flora = KeyFlora.Of(shelf, version, "key");
        var sifter = ReadyFlora.Read(ReadyFlora.Write(flora)).With(ShippedVocabulary.Botany).Sifter;
        int right = 0,
            all = 0;
        foreach (var taxon in flora.Table!.Descriptions)
        {
            for (var seed = 0; seed < 3; seed++)
            {
                var plant = new SimulatedPlant(taxon.Characters, new Random(seed));
                var sheet = new List<Observation>();
                foreach (var described in taxon.Characters)
                {
                    if (plant.Look(sifter.Columns.Find(described.Character)!.Character) is { } seen)
                        sheet.Add(seen);
                }
                var first = sifter.Sift(new SiftQuery(sheet)).Standing.First(s => s.Taxon != Sifter.NotOnList);
                all++;
                if (first.Taxon == taxon.Taxon)
                    right++;
                else
                    output.WriteLine($"{taxon.Taxon} taken for {first.Taxon}");
            }
        }
        output.WriteLine($"{file}: {flora.Taxa.Count} taxa, {flora.Table.Characters.Count} characters; {right} of {all} named rightly");
        const double least = 0.9;
        Assert.True(right >= least * all, $"{right} of {all}");
    }

    [Theory]
    [MemberData(nameof(Files))]
    public void ItsMeterCountsEveryStatementOnce(string file)
    {
        var (shelf, version) = Shelf(file);
        var read = ReadKey.Of(shelf, version);
        output.WriteLine($"{file}: {read.Meter}; {string.Join(", ", read.Words.Select(w => $"{w.Word} {w.Clauses}"))}");
        Assert.Equal(version.Key.Couplets.SelectMany(c => c.Leads).Sum(l => l.Statements.Count), read.Meter.Statements);
        Assert.Equal(read.Meter.Statements, read.Meter.Taken + read.Meter.Proposed + read.Meter.Text);
        // At least this share of statements in the words of printed floras is weighed.
        const double least = 0.45;
        Assert.True(read.Meter.Taken >= least * read.Meter.Statements, $"{read.Meter}");
        foreach (var open in read.Statements.SelectMany(s => s.Open))
            Assert.All(open.Choices, c => Assert.NotEmpty(c.InWords));
    }

    [Fact]
    public void AChoiceThatWasTakenIsAReadingThatStays()
    {
        var (shelf, version) = Shelf("key-a-deciduous-trees-in-leaf.txt");
        var open = ReadKey.Of(shelf, version).Statements.First(s => s.Open.Count == 1);
        var claims = open.Reading.Claims.Concat(open.Open[0].Choices[0].Claims).ToList();
        var table = CharacterTable.Empty with { Botany = ShippedVocabulary.Botany };
        var after = new BenchShelf(shelf.Keys, table, [], null, [new(open.Reading.Text, claims)]);
        var now = ReadKey
            .Of(after, version)
            .Statements.Single(s => s.Couplet == open.Couplet && s.Lead == open.Lead && s.Index == open.Index);
        Assert.True(now.Reading.IsCorrected);
        Assert.Equal(claims.Select(GoldFile.Show), now.Reading.Claims.Select(GoldFile.Show));
        Assert.Empty(now.Open);
    }

    [Fact]
    public void ATaughtWordOpensTheClausesThatHungOnIt()
    {
        var (shelf, version) = Shelf("old-book.txt");
        var before = ReadKey.Of(shelf, version);
        var table = CharacterTable.Empty with { Botany = ShippedVocabulary.Botany };
        var word = before.Words[0].Word;
        var taught = new BenchShelf(shelf.Keys, table, [], [new("leaf.texture", "stiff", word)]);
        Assert.DoesNotContain(ReadKey.Of(taught, version).Words, w => w.Word == word);
    }

    [Fact]
    public void AKeyIsReadTheSameOnceItsTaxaAreAList()
    {
        var key = KeyTextReader.Read(File.ReadAllText(Path.Combine(Folder, "old-book.txt"))).Keys[0];
        var version = new KeyVersion(KeyHash.Of(key), key);
        var torvane = Torvane.TorvaneFlora.Table;
        BenchShelf With(CharacterTable table, IReadOnlyList<Taxon> taxa) =>
            new(new KeyShelf([version], taxa), table with { Botany = ShippedVocabulary.Botany }, taxa);
        string Claims(BenchShelf shelf) =>
            string.Join("\n", ReadKey.Of(shelf, version).Statements.Select(s => string.Join(';', s.Reading.Claims.Select(GoldFile.Show))));
        var before = With(torvane, Torvane.TorvaneFlora.Taxa);
        var made = KeyFlora.Of(before, version, "key");
        var after = With(CharacterTable.Join([torvane, made.Table!]), [.. Torvane.TorvaneFlora.Taxa, .. made.Taxa]);
        Assert.Equal(Claims(before), Claims(after));
    }

    // Also where the flora at hand has a character of its own for hairs.
    [Fact]
    public void SmoothBesideHairyIsAskedAboutInAnyFlora()
    {
        var key = KeyTextReader.Read("Key to two\n\n1. Twigs smooth ... Alba prima\n1. Twigs hairy ... Alba secunda\n").Keys[0];
        var version = new KeyVersion(KeyHash.Of(key), key);
        var table = Torvane.TorvaneFlora.Table with { Botany = ShippedVocabulary.Botany };
        var shelf = new BenchShelf(new KeyShelf([version]), table, Torvane.TorvaneFlora.Taxa);
        Assert.Empty(shelf.Readings(version, "1")[0][0].Claims);
    }

    [Fact]
    public void SmoothBesideHairyIsAskedAbout()
    {
        const string text = """
            Key to two

            1. Twigs smooth; leaves hairy beneath ... Alba prima
            1. Twigs hairy; leaves smooth and shining above ... Alba secunda
            """;
        var key = KeyTextReader.Read(text).Keys[0];
        var version = new KeyVersion(KeyHash.Of(key), key);
        var table = CharacterTable.Empty with { Botany = ShippedVocabulary.Botany };
        var read = ReadKey.Of(new BenchShelf(new KeyShelf([version]), table, []), version).Statements;
        Assert.Empty(read[0].Reading.Claims);
        Assert.Equal(["hairs of the twig: hairless", "surface of the twig: smooth"], read[0].Open.Single().Choices.Select(c => c.InWords));
        Assert.Equal(["twig.hair-density=hairy"], read[2].Reading.Claims.Select(GoldFile.Show));
    }

    [Fact]
    public void CoupletsThatStayTextAreContrastedInTheirOwnWords()
    {
        const string text = """
            Key to two

            1. Frumious when galumphing ... Alba prima
            1. Slithy by and large ... Alba secunda
            """;
        var key = KeyTextReader.Read(text).Keys[0];
        var version = new KeyVersion(KeyHash.Of(key), key);
        var table = CharacterTable.Empty with { Botany = ShippedVocabulary.Botany };
        var flora = KeyFlora.Of(new BenchShelf(new KeyShelf([version]), table, []), version, "key");
        var wording = Assert.Single(flora.Table!.Characters);
        Assert.Equal(["Frumious when galumphing", "Slithy by and large"], wording.States.Select(s => s.Name));
        Assert.All(flora.Table.Descriptions, d => Assert.Single(d.Characters));
    }
}
