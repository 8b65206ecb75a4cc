using System.Text;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Tests.Identification;
using Garten.Formats.Tables;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>Tables with anything in them: what is sound can be sifted, what isn't is said, and reading never falls over.</summary>
public sealed class AnyTableTests
{
    private static readonly string[] Cells =
    [
        "",
        "?",
        "-",
        "NA",
        "ovate",
        "ovate | elliptic",
        "usually ovate | rarely elliptic",
        "!ovate",
        "! ",
        "|",
        "ovate|ovate",
        "4",
        "4,5",
        "0",
        "-3",
        "4–6",
        "(2–)4–6(–9) cm",
        "9–6",
        "up to 5 cm",
        "> 3",
        "5–8 cm @shade 9–14 cm",
        "@shade",
        "c. 30°",
        "1e9",
        "∞",
        "NaN",
        "yes",
        "no",
        "Vellorna alba",
        "\"quoted, with a comma\"",
        "=1+1",
        "usually",
        "many",
        "3 × 4",
        "4–6 × 2–3 mm",
        "½",
        "1/0",
        "99999999999999",
        "×",
        "'",
        "é",
    ];

    private static readonly string[] Headings =
    [
        "leaf length (cm)",
        "leaf_shape",
        "petals",
        "family",
        "status",
        "height [m]",
        "",
        "habitat",
        "angle (°)",
        "notes",
        "leaf length (cm)",
        "rank",
        "seed mass (mg)",
    ];

    private static string Row(Random random, string first, int width) =>
        string.Join(',', Enumerable.Range(0, width).Select(_ => Cells[random.Next(Cells.Length)]).Prepend(first));

    private static void IsSoundOrSaysWhatIsNot(FloraReading reading)
    {
        Assert.All(reading.Problems, p => Assert.True(p.Message.Length > 5 && p.Message[^1] is '.' or '?' or ')', p.Message));
        if (!reading.IsSound)
            return;
        Assert.NotEmpty(reading.Taxa);
        Assert.Equal(reading.Taxa.Count, reading.Taxa.Select(t => t.Id).Distinct().Count());
        Assert.Equal(reading.Table.Characters.Count, reading.Table.Characters.Select(c => c.Id).Distinct().Count());
        foreach (var cell in reading.Table.Descriptions.SelectMany(d => d.Characters))
        {
            var character = reading.Table.Find(cell.Character)!;
            Assert.All(cell.States, s => Assert.True(character.IndexOf(s.State) >= 0 && s.Share > 0));
            if (cell.Range is { } range)
                Assert.Null(range.Contradiction());
        }
        // What was read can be made ready, sifted and asked for its looks.
        var ready = ReadyFlora.Read(ReadyFlora.Write(new Flora("any", "Any", reading.Taxa, reading.Table)));
        var (result, looks) = ready.Sifter.SiftAndLook(new SiftQuery([]));
        Assert.Equal(1, result.Standing.Sum(c => c.Probability) + result.LeastProbable, 6);
        Assert.All(looks.Now, l => Assert.True(l.Bits > 0));
    }

    [Fact]
    public void AMatrixAlone() => AnyFlora.Each(400, seed =>
        {
            var random = new Random(seed);
            var headings = Headings.OrderBy(_ => random.Next()).Take(random.Next(1, 6)).ToList();
            var text = new StringBuilder("taxon,").AppendLine(string.Join(',', headings));
            for (var row = random.Next(0, 7); row > 0; row--)
                text.AppendLine(
                    Row(
                        random,
                        random.Next(8) == 0 ? "" : $"Genella {(random.Next(6) == 0 ? "alba" : $"s{row}")}",
                        headings.Count + random.Next(-1, 2)
                    )
                );
            IsSoundOrSaysWhatIsNot(FloraTablesTests.Read(text.ToString()));
        });

    [Fact]
    public void WithTablesOfCharactersAndTaxa() => AnyFlora.Each(300, seed =>
        {
            var random = new Random(seed);
            string One(params string[] of) => of[random.Next(of.Length)];
            var characters = new StringBuilder("id,name,kind,unit,states,organ,reliability,applies_if,ratio_of,phenophases,effort_s\n");
            var ids = Enumerable.Range(0, random.Next(1, 5)).Select(i => $"c{i}").ToList();
            foreach (var id in ids)
            {
                characters.AppendLine(
                    string.Join(
                        ',',
                        random.Next(15) == 0 ? "" : id,
                        $"thing {id}",
                        One("categorical", "ordered", "count", "length", "ratio", "angle", "boolean", "numeric", "funny"),
                        One("", "mm", "cm", "mg", "°"),
                        One("", "ovate|elliptic", "o=ovate|e=elliptic", "ovate|ovate", "yes|no"),
                        One("", "leaf", "wing"),
                        One("", "0.9", "120%", "often"),
                        One("", "c0=ovate", "c9=ovate", "="),
                        One("", "c0/c1", "c0/c9", "/"),
                        One("", "flower", "flower|snow", "always"),
                        One("", "5", "-1", "x")
                    )
                );
            }
            var taxa = new StringBuilder("name,rank,parent,family,elevation,phenology,cautions,status,look_alikes,members,common_names\n");
            var names = Enumerable.Range(0, random.Next(1, 6)).Select(i => i == 0 ? "Genella" : $"Genella s{i}").ToList();
            foreach (var name in names)
            {
                taxa.AppendLine(
                    string.Join(
                        ',',
                        name,
                        One("", "species", "Genus", "hybrid"),
                        One("", "Genella", "Genella s1", "Zed"),
                        One("", "Genellaceae"),
                        One("", "0–300", "high", "300–0"),
                        One("", "flower apr–jun", "flower", "flower nov2–feb"),
                        One("", "poisonous", "tasty"),
                        One("", "native", "alien"),
                        One("", "Genella s1", "Zed"),
                        One("", "Genella s1|Genella s2"),
                        One("", "a name", "a|b")
                    )
                );
            }
            var matrix = new StringBuilder("taxon,").AppendLine(
                string.Join(',', ids.Append(One("c0", "thing c0", "zed", "")).Take(random.Next(1, ids.Count + 2)))
            );
            foreach (var name in names.Append(One("Genella s1", "Zedia prima")))
                matrix.AppendLine(Row(random, name, ids.Count));
            IsSoundOrSaysWhatIsNot(
                FloraTablesTests.Read(matrix.ToString(), characters.ToString(), random.Next(3) == 0 ? null : taxa.ToString())
            );
        });
}
