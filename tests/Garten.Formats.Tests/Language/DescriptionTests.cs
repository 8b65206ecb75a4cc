using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Formats.Tests.Language;

/// <summary>Descriptions in the prose of a flora.</summary>
public sealed class DescriptionTests(ITestOutputHelper output)
{
    private static readonly DescriptionReader Reader = new(ShippedVocabulary.Botany);

    private const string Text = """
        1. Ossalia Hask. Deciduous shrubs. Leaves alternate. Stipules present, soon falling.

        Ossalia prima Hask.
        Syn: Rorippa falsa
        Shrub, 1–3 m high. Twigs hairless. Leaves ovate, 4–9 × 2–5 cm, finely serrate, white-felted beneath;
        petiole 8–15 mm. Flowers white. Fruit a berry. Fl. May–June. Habitat: wet woods.

        Ossalia secunda (L.) Osk. — Like O. prima, but leaves green beneath and petiole 2–4 mm. Fr. VIII–X.

        this is no taxon at all
        """;

    private static string? Cell(ReadTaxon taxon, string character) =>
        taxon.Characters.FirstOrDefault(c => c.Character == character) is { } cell
            ? cell.Range?.Text.Trim() ?? string.Join('|', cell.States.Select(s => s.State))
            : null;

    [Fact]
    public void ParagraphsBecomeTaxaWithWhatIsSaidOfThem()
    {
        var read = Reader.Read(Text);
        Assert.Equal(["Ossalia", "Ossalia prima", "Ossalia secunda"], read.Taxa.Select(t => t.Name));
        Assert.Equal(["Hask.", "Hask.", "(L.) Osk."], read.Taxa.Select(t => t.Authorship));
        var prima = read.Taxa[1];
        Assert.Equal("shrub", Cell(prima, "plant.growth-form"));
        Assert.Equal("ovate", Cell(prima, "leaf.outline"));
        Assert.Equal("white", Cell(prima, "leaf.hair-colour@beneath"));
        Assert.Equal("8–15 mm", Cell(prima, "petiole.length"));
        Assert.Equal("berry", Cell(prima, "fruit.fruit-type"));
        Assert.Equal(["wet woods"], prima.Habitats);
        Assert.Equal(["Rorippa falsa"], prima.Synonyms);
        Assert.Equal([new PhaseSpan(Phenophase.Flower, 9, 12)], prima.Phenology);
        Assert.Contains("this is no taxon", Assert.Single(read.Problems), StringComparison.Ordinal);
    }

    [Fact]
    public void LikeAnotherButTakesOverWhatIsNotSaidOtherwise()
    {
        var secunda = Reader.Read(Text).Taxa[2];
        Assert.Equal("ossalia-prima", secunda.Like);
        Assert.Equal("ovate", Cell(secunda, "leaf.outline"));
        Assert.Equal("green", Cell(secunda, "leaf.colour@beneath"));
        Assert.Equal("2–4 mm", Cell(secunda, "petiole.length"));
        Assert.Equal([new PhaseSpan(Phenophase.RipeFruit, 15, 20)], secunda.Phenology);
    }

    // Distribution words, heights and ranks are taken where they stand, and what only looks like them isn't.
    [Theory]
    [InlineData("Common throughout", true, "Unsaid||")]
    [InlineData("Native; rare in the north", true, "Native||")]
    [InlineData("Introduced, naturalized on waste ground", true, "Introduced|naturalised|")]
    [InlineData("Perhaps native in the west", true, "Doubtful||")]
    [InlineData("Not native", true, "Doubtful||")]
    [InlineData("Planted along roads", true, "Unsaid|planted|")]
    [InlineData("Distribution: coasts of the west, 0–300 m above the sea", true, "Unsaid||0–300")]
    [InlineData("Up to 900 m a.s.l.", true, "Unsaid||–900")]
    [InlineData("Common petiole 3 cm long", false, "Unsaid||")]
    [InlineData("Leaves 5–30 m", false, "Unsaid||")]
    [InlineData("Leaves ovate, up to 900 m above the sea", false, "Unsaid||")]
    [InlineData("Local hairs beneath", false, "Unsaid||")]
    public void DistributionWordsAreTakenWhereTheyStand(string statement, bool isOf, string taken)
    {
        var read = Reader.Read($"Ossalia prima Hask. Shrub. {statement}.").Taxa.Single();
        var (origin, established, from, to) = read.Occurrence;
        Assert.Equal(isOf, read.Distribution.Count > 0);
        Assert.Equal(taken, $"{origin}|{established}|{(to is null ? "" : $"{from}–{to}")}");
    }

    [Fact]
    public void RanksAreReadOffTheNames()
    {
        var flora = Reader.FloraOf(
            Reader.Read(
                "Ossalia Hask. Shrubs.\n\nOssalia prima Hask. Leaves ovate.\n\n"
                    + "Ossalia prima subsp. minor Osk. Leaves 1 cm.\n\nOssalia Hask. Trees."
            ),
            "f",
            "F",
            []
        );
        Assert.Equal(["genus", "species", "subspecies", "genus"], flora.Taxa.Select(t => t.Rank));
        Assert.Equal(["", "ossalia", "ossalia-prima", ""], flora.Taxa.Select(t => t.Parent));
    }

    [Fact]
    public void SilenceIsUnknownAndTheGenusFillsIn()
    {
        var flora = Reader.FloraOf(Reader.Read(Text), "f", "F", []);
        Assert.Equal(["", "ossalia", "ossalia"], flora.Taxa.Select(t => t.Parent));
        var completed = CharacterTable.Complete(flora.Table!.Descriptions, flora.Taxa).Single(d => d.Taxon == "ossalia-prima");
        Assert.Equal("alternate", completed.Characters.Single(c => c.Character == "leaf.arrangement").States[0].State);
        Assert.DoesNotContain(completed.Characters, c => c.Character == "bark.colour");
    }

    [Theory]
    [InlineData("")]
    [InlineData("\n\n\n")]
    [InlineData("12345")]
    [InlineData("nothing here begins with a name")]
    public void WhatIsNoDescriptionSaysSo(string text) => Assert.Empty(Reader.Read(text).Taxa);

    // What was read, written as a flora would write it and read again, says the same or is text: nothing else. The share that comes back is
    // held at what it was.
    [Fact]
    public void WhatIsReadIsWrittenAndReadAgain()
    {
        const double comesBack = 0.9;
        List<string> wrong = [],
            lost = [];
        var all = 0;
        foreach (var lead in Sets.SelectMany(f => GoldFile.Keys($"{f}.txt")).SelectMany(k => k))
        {
            var text = string.Join("; ", lead.Select(s => s.Text));
            if (Reader.Read($"Ossalia prima. {text}").Taxa is not [{ Characters: { Count: > 0 } read }])
                continue;
            var characters = read.Select(c => ShippedVocabulary.Botany.Compose(c.Character)).OfType<Character>().ToList();
            var written = string.Join(' ', FloraProse.Write(read, characters).Select(p => p.Text));
            var again = Reader.Read($"Ossalia prima. {written}").Taxa.Single().Characters;
            foreach (var cell in again.Where(c => !read.Any(r => Same(r, c))))
                wrong.Add($"{cell.Character}={string.Join('|', cell.States.Select(s => s.State))} {cell.Range?.Text} ← {written}");
            all += read.Count;
            lost.AddRange(
                read.Where(r => !again.Any(c => Same(r, c)))
                    .Select(r => $"{r.Character}={string.Join('|', r.States.Select(s => s.State))} {r.Range?.Text} ← {written}")
            );
        }
        output.WriteLine($"{all} values, {lost.Count} don't come back, {wrong.Count} are others");
        foreach (var line in wrong)
            output.WriteLine("other " + line);
        foreach (var line in lost)
            output.WriteLine("lost " + line);
        Assert.Empty(wrong);
        Assert.True(lost.Count <= (1 - comesBack) * all, $"{lost.Count} of {all} values don't come back");
    }

    private static bool Same(CharacterDescription one, CharacterDescription other) =>
        Canonical(one.Character) == Canonical(other.Character)
        && one.States.Select(s => s.State)
            .Order(StringComparer.Ordinal)
            .SequenceEqual(other.States.Select(s => s.State).Order(StringComparer.Ordinal))
        && (
            one.Range is null && other.Range is null
            || one.Range is { } a && other.Range is { } b && Near(a.Low, b.Low) && Near(a.High, b.High)
        );

    // "The lobes of the corolla" have a name of their own, and a rachis without its owner is the same rachis.
    private static (string Part, string Quality, string Region) Canonical(string id)
    {
        var own = ShippedVocabulary.Botany.Canonical(CharacterId.Read(id)!.Value);
        var part = ShippedVocabulary.Botany.Part($"{own.Owner}-{own.Part}") is { } named ? named.Id : own.Part;
        return (part == "blade" ? "leaf" : part, own.Quality, own.Region);
    }

    private static bool Near(double a, double b) => Math.Abs(a - b) <= 0.11 * Math.Max(Math.Abs(a), 1e-9) || a > 1e6 && b > 1e6;

    private static readonly string[] Sets =
    [
        "first",
        "second",
        "third",
        "seventh",
        "eighth",
        "ninth",
        "twelfth",
        "thirteenth",
        "fourteenth",
        "fifteenth",
    ];

    // Values in prose: each statement's values beside those that were meant, over herbs, shrubs, grasses and ferns.
    [Theory]
    [InlineData("prose.txt")]
    [InlineData("prose-second.txt")]
    public void ValuesInProseAreMostlyRightAndHardlyEverWrong(string file)
    {
        var judged = GoldFile.Judge(Garten.Core.Language.GrammarReader.Of(ShippedVocabulary.Botany, []), file);
        var (values, wrong) = (judged.Sum(j => j.Gold.Claims.Count), judged.Sum(j => j.Wrong.Count));
        var right = values - judged.Sum(j => j.Missed.Count);
        Assert.True(values >= 60);
        Assert.True(right >= 0.6 * values, $"{right} of {values}");
        Assert.True(wrong <= 0.03 * values, string.Join(" ; ", judged.SelectMany(j => j.Wrong).Select(GoldFile.Show)));
    }
}
