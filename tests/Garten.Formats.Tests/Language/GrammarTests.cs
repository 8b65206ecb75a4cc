using Garten.Core.Language;
using Xunit;

namespace Garten.Formats.Tests.Language;

/// <summary>The grammar of parts and qualities against statements with their meaning made by hand.</summary>
public sealed class GrammarTests(ITestOutputHelper output)
{
    private static readonly GrammarReader Reader = GrammarReader.Of(ShippedVocabulary.Botany, []);

    // Of each set the share that is at least read, and the share that may be wrong: docs/language.md has the first figures.
    [Theory]
    [InlineData("first.txt", 0.75, 0)]
    [InlineData("second.txt", 0.70, 0)]
    [InlineData("third.txt", 0.70, 0)]
    [InlineData("fourth.txt", 0.65, 0)]
    [InlineData("fifth.txt", 0.60, 0)]
    [InlineData("sixth.txt", 0.60, 0)]
    [InlineData("seventh.txt", 0.75, 0)]
    [InlineData("eighth.txt", 0.70, 0)]
    [InlineData("ninth.txt", 0.70, 0)]
    [InlineData("tenth.txt", 0.90, 0)]
    [InlineData("eleventh.txt", 0.90, 0)]
    [InlineData("twelfth.txt", 0.75, 0)]
    [InlineData("thirteenth.txt", 0.60, 0)]
    [InlineData("fourteenth.txt", 0.75, 0)]
    [InlineData("fifteenth.txt", 0.65, 0)]
    [InlineData("traps.txt", 0.35, 0)]
    public void StatementsMeanWhatTheyWereSaidToMean(string file, double taken, double wrong)
    {
        var judged = GoldFile.Judge(Reader, file);
        foreach (var one in judged.Where(j => j.Wrong.Count > 0 || j.Missed.Count > 0))
        {
            output.WriteLine($"{(one.Wrong.Count > 0 ? "WRONG " : "missed")} {one.Gold.Text}");
            foreach (var claim in one.Wrong)
                output.WriteLine($"    + {GoldFile.Show(claim)}");
            foreach (var claim in one.Missed)
                output.WriteLine($"    - {claim}");
        }
        var (n, read, bad) = (judged.Count, judged.Count(j => j.Read.Claims.Count > 0), judged.Count(j => j.Wrong.Count > 0));
        output.WriteLine($"{file}: {n} statements, {read} with claims, {bad} with a wrong one");
        Assert.True(read >= taken * n, $"{read} of {n} are read");
        Assert.True(bad <= wrong * n, $"{bad} of {n} are read wrongly");
    }

    // What is taken comes by constructions that have proven themselves: each at least thirty times in the gold, without an error.
    [Fact]
    public void EveryConstructionIsProven()
    {
        string[] files =
        [
            "first",
            "second",
            "third",
            "fourth",
            "fifth",
            "sixth",
            "seventh",
            "eighth",
            "ninth",
            "tenth",
            "eleventh",
            "twelfth",
            "thirteenth",
            "fourteenth",
            "fifteenth",
            "traps",
            "prose-second",
            "prose",
        ];
        List<string> unproven = [];
        var judged = files.SelectMany(f => GoldFile.Judge(Reader, $"{f}.txt")).ToList();
        foreach (var construction in Enum.GetValues<Construction>().Where(c => c != Construction.None))
        {
            var used = judged.Where(j => (j.Read.Clauses ?? []).Any(c => c.By.HasFlag(construction))).ToList();
            var clauses = used.Sum(j => j.Read.Clauses!.Count(c => c.By.HasFlag(construction)));
            var wrong = used.Count(j => j.Wrong.Count > 0);
            output.WriteLine($"{construction}: {clauses} clauses, {wrong} statements wrong");
            const int proven = 30;
            if (clauses < proven || wrong > 0)
                unproven.Add($"{construction} stands in {clauses} clauses of the gold, {wrong} statements are wrong");
        }
        Assert.True(unproven.Count == 0, string.Join("\n", unproven));
    }

    // Spaces, hyphens, case and line breaks change nothing.
    [Theory]
    [InlineData("Leaf-base rounded; side-veins 9–12 pairs", "leaf base   ROUNDED; Side veins\n9–12 pairs")]
    [InlineData("Leaves grey-felted beneath", "leaves  Grey felted   beneath")]
    [InlineData("Lvs lanceolate-elliptic, 3–8 cm", "lvs lanceolate elliptic , 3-8 cm")]
    public void WritingItOtherwiseChangesNothing(string one, string other)
    {
        static string Claims(string text) =>
            string.Join(" ; ", Reader.Read([.. text.Split(';').Select(s => s.Trim())]).SelectMany(r => r.Claims).Select(GoldFile.Show));
        Assert.NotEmpty(Claims(one));
        Assert.Equal(Claims(one), Claims(other));
    }

    [Fact]
    public void AnUnknownWordOnlyWithholds()
    {
        foreach (var file in new[] { "first.txt", "second.txt" })
        {
            foreach (var lead in GoldFile.Keys(file).SelectMany(k => k))
            {
                foreach (var statement in lead)
                {
                    var plain = Reader.Read([statement.Text])[0];
                    var words = statement.Text.Split(' ');
                    for (var at = 0; at <= words.Length; at++)
                    {
                        var text = string.Join(' ', words[..at].Append("grumblish").Concat(words[at..]));
                        foreach (var claim in Reader.Read([text])[0].Claims)
                        {
                            Assert.True(
                                plain.Claims.Any(c => c.Character == claim.Character) || Kinds(plain, claim),
                                $"“{text}” claims {GoldFile.Show(claim)}, and “{statement.Text}” doesn't"
                            );
                        }
                    }
                }
            }
        }

        // What was two readings of which neither could be taken may become one; it is never another claim than those.
        static bool Kinds(StatementReading plain, StatementClaim claim) =>
            (plain.Clauses ?? []).SelectMany(c => c.Proposals).SelectMany(p => p).Any(c => c.Character == claim.Character);
    }

    // A claim never speaks of a part that its lead doesn't name, by one of its nouns or by a word made of one;
    // a margin or an underside alone is a leaf's where the whole text is on leaves.
    [Fact]
    public void AClaimSpeaksOfNothingThatIsntNamed()
    {
        string[] ofBlades =
        [
            "vein",
            "nerv",
            "lobe",
            "teeth",
            "blad",
            "lvs",
            "lf ",
            "marg",
            "edge",
            "side",
            "surf",
            "face",
            "beneath",
            "below",
            "above",
        ];
        var botany = ShippedVocabulary.Botany;
        // "Rays" are those of umbels or of heads.
        var words = botany
            .Vocabulary.Words!.Where(w => w.Kind is "part" or "counted" or "noun")
            .SelectMany(w => w.Value.TrimStart('=').Split('/').Select(p => (Part: p, w.Text)))
            .ToLookup(w => w.Part, w => w.Text);
        foreach (
            var key in new[] { "first", "second", "fourth", "eighth", "ninth", "tenth", "twelfth" }.SelectMany(f =>
                GoldFile.Keys($"{f}.txt")
            )
        )
        {
            var of = Reader.ContextOf(key.SelectMany(l => l).Select(s => s.Text));
            foreach (var lead in key)
            {
                var text = string.Join(" ", lead.Select(s => s.Text)).ToLowerInvariant().Replace('-', ' ') + " ";
                bool IsNamed(string part) =>
                    part == "plant"
                    || botany
                        .Part(part)!
                        .Nouns.Concat(words[part])
                        .Select(n => n.Split(' ', '-')[^1])
                        .Any(n => text.Contains(Stem(n), Ordinal))
                    || part is "leaf" or "frond" && ofBlades.Any(b => text.Contains(b, Ordinal))
                    || part == "floret" && text.Contains("flowered", Ordinal);
                foreach (var claim in Reader.Read([.. lead.Select(s => s.Text)], of).SelectMany(r => r.Claims))
                {
                    var id = Garten.Core.Botany.CharacterId.Read(claim.Character)!.Value;
                    Assert.True(IsNamed(id.Part), $"“{text}” claims {GoldFile.Show(claim)}");
                }
            }
        }
    }

    private const StringComparison Ordinal = StringComparison.Ordinal;

    // As much of a noun as its plural and the adjectives made of it have too.
    private static string Stem(string noun) => noun.Length <= 4 ? noun : noun[..4];

    [Theory]
    [InlineData("Leaves toothed", "Leaves not toothed")]
    [InlineData("Stem hairy", "Stem never hairy")]
    [InlineData("Petioles with glands", "Petioles without glands")]
    [InlineData("Twigs winged", "Twigs not winged")]
    public void AClaimAndItsDenialExcludeEachOther(string text, string denial)
    {
        var (says, denies) = (Reader.Read([text])[0].Claims, Reader.Read([denial])[0].Claims);
        Assert.Contains(says, s =>
            denies.Any(d => d.Character == s.Character && !d.States.Intersect(s.States, StringComparer.Ordinal).Any())
        );
    }

    [Theory]
    [InlineData("")]
    [InlineData("12 34 56")]
    [InlineData("Blätter gegenständig, kahl")]
    [InlineData("!!! ??? ***")]
    [InlineData("or")]
    [InlineData(", or")]
    [InlineData(":")]
    [InlineData("each")]
    [InlineData("Leaves:")]
    [InlineData("Leaves: :, or")]
    [InlineData("the the the of of of with with with and or to to to")]
    public void NonsenseStaysText(string text) => Assert.All(Reader.Read([text]), r => Assert.Empty(r.Claims));

    [Fact]
    public void TwoThousandWordsAreCutOffAndStayText()
    {
        var text = string.Join(' ', Enumerable.Repeat("leaves hairy or smooth and toothed to entire with", 250));
        Assert.Empty(Reader.Read([text])[0].Claims);
    }

    // What the old reader slipped on, at full weight.
    [Theory]
    [InlineData("Bracts smooth", "bark")]
    [InlineData("Sori brown", "bark")]
    [InlineData("Seeds fissured", "bark")]
    [InlineData("Margin scarcely toothed", "margin")]
    [InlineData("Twigs not always hairy", "hair")]
    [InlineData("Leaves, if hairy, with stellate hairs", "hair")]
    [InlineData("Twigs hairless except at the tip", "hair")]
    [InlineData("Petals shorter than the hairy sepals", "petal")]
    [InlineData("Leaves toothed, or the margin rolled", "margin")]
    [InlineData("Twigs green in winter", "persistence")]
    [InlineData("Leaves, if hairy, with stellate hairs; margin entire", "hair")]
    [InlineData("Flowers 5-merous", "number")]
    [InlineData("Stems smooth or, if hairy, with deflexed hairs", "surface")]
    [InlineData("Leaves opposite below, alternate above", "arrangement")]
    [InlineData("Margins toothed, the teeth tipped with glands", "colour")]
    [InlineData("Flowers not white, pink or red", "colour")]
    [InlineData("Fruit hairy, but not when ripe", "hair")]
    [InlineData("Leaves hairy, but not towards the tip", "hair")]
    [InlineData("Plant with forked and stellate hairs, the leaves unlike the bracts", "leaf")]
    [InlineData("Beak of the fruit with one seed", "seed")]
    [InlineData("Achenes swollen", "base")]
    [InlineData("Leaves brittle", "texture")]
    [InlineData("Shrub tree-like", "hair")]
    [InlineData("Leaves club-shaped", "hair")]
    [InlineData("Leaflets of the lower leaves round", "leaflet.outline")]
    [InlineData("Corolla spurred at the base", "@base")]
    [InlineData("Inflorescence raised on a stout stalk, longer than the leaf", "relative")]
    [InlineData("Petals with a darker base", "base")]
    [InlineData("Twigs without or with few hairs", "hair")]
    [InlineData("Petioles with glands or without", "gland")]
    [InlineData("Leaves anything but hairy", "hair")]
    [InlineData("Stem hairy only at the nodes", "hair")]
    [InlineData("Leaves simple or, in shade, lobed", "lob")]
    [InlineData("Leaves triangular in section", "outline")]
    [InlineData("Five stamens without anthers", "number")]
    [InlineData("Calyx loose", "compactness")]
    [InlineData("Tepals unequal, the outer longer, blunt", "apex")]
    [InlineData("Leaves shorter than the stems", "petiole")]
    public void ATrapIsNotSteppedInto(string text, string of) =>
        Assert.DoesNotContain(Reader.Read([text])[0].Claims, c => c.Character.Contains(of, StringComparison.Ordinal));

    // "Leaves:" heads what follows; the part that is named behind it is the subject.
    [Theory]
    [InlineData("Leaves: petiole 2 cm, hairy", "petiole.length 20..20 petiole.hair-density=hairy")]
    [InlineData("Leaves: opposite, ovate", "leaf.arrangement=opposite leaf.outline=ovate")]
    [InlineData("Fruit: seed in one row, black", "seed.arrangement=one-row seed.colour=black")]
    [InlineData("Seedlings: leaves opposite, hairy", "")]
    public void BehindAHeadingThePartNamedIsTheSubject(string text, string claims)
    {
        var read = Reader.Read([text])[0].Claims;
        Assert.Equal(claims.Length == 0 ? 0 : 2, read.Count);
        Assert.All(read, c => Assert.Contains(c.Character + (c.Range is null ? "=" + c.States[0] : " "), claims, StringComparison.Ordinal));
    }

    [Fact]
    public void TheAgeOfASubjectGoesOnAndAnotherColonPartsClauses()
    {
        Assert.Equal(
            ["leaf.hair-density=hairy~Young", "leaf.colour=green~Young"],
            Reader.Read(["Young leaves hairy, green"])[0].Claims.Select(GoldFile.Show)
        );
        Assert.Equal(
            ["leaf.hair-density=hairy~Young", "leaf.colour=green"],
            Reader.Read(["Leaves hairy when young, green"])[0].Claims.Select(GoldFile.Show)
        );
        // Whose age a heading says isn't read behind it: text.
        Assert.Empty(Reader.Read(["Young leaves: petiole hairy"])[0].Claims);
        // What breaks off with an "or" says nothing for sure.
        Assert.Empty(Reader.Read(["Leaves ovate, or"])[0].Claims);
        Assert.Equal(
            ["leaf.outline=ovate", "leaf.base-form=cordate"],
            Reader.Read(["Leaf-blades: ovate: base cordate"])[0].Claims.Select(GoldFile.Show)
        );
    }

    // One reader serves all requests of the server at once, also with words that nobody knows.
    [Fact]
    public void OneReaderReadsForManyAtOnce()
    {
        var reader = new GrammarReader(ShippedVocabulary.Botany);
        Parallel.For(0, 400, n =>
            Assert.Equal("leaf.margin=entire", GoldFile.Show(reader.Read([$"word{n}ish thing{n}ly", "Leaves entire"])[1].Claims.Single()))
        );
    }

    [Fact]
    public void FacesAreKeptApart() =>
        Assert.Equal(
            ["leaf.colour@above=green", "leaf.colour@beneath=white"],
            Reader.Read(["Leaves green above, white beneath"])[0].Claims.Select(GoldFile.Show)
        );
}
