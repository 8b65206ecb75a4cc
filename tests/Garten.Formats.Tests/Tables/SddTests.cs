using System.Text;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Tests.Identification;
using Garten.Formats.Tables;
using Garten.Formats.Tests.Torvane;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>SDD both ways, and what must not be read.</summary>
public sealed class SddTests
{
    private static byte[] Written(Flora flora)
    {
        using var stream = new MemoryStream();
        SddWriter.Write(flora, DateTimeOffset.UnixEpoch, stream);
        return stream.ToArray();
    }

    [Fact]
    public void SignsThatXmlCantHoldAreLeftOutWhereverTheyStand()
    {
        const string odd = "a\u0015\ud83c\udf31\ud800b";
        var flora = new Flora(
            "odd",
            odd,
            [new Taxon(odd, odd, odd, odd, odd, odd, odd, [], odd)],
            new CharacterTable(
                [
                    new Character(
                        odd,
                        odd,
                        Organ.Leaf,
                        CharacterKind.Categorical,
                        [new CharacterState(odd, odd, odd, [odd])],
                        [],
                        [],
                        0.9,
                        0.9,
                        5,
                        Tool.Eye,
                        Handling.Look,
                        [],
                        Unit: odd,
                        Definition: odd
                    ),
                ],
                [new TaxonDescription(odd, [new CharacterDescription(odd, [new StateShare(odd, 1)])])],
                []
            )
        );
        var text = System.Text.Encoding.UTF8.GetString(Written(flora));
        Assert.Contains("a\ud83c\udf31b", text, StringComparison.Ordinal);
        Assert.DoesNotContain('\u0015', text);
    }

    [Fact]
    public void TheDemoComesBackAsItWentOut()
    {
        var flora = new Flora("torvane", "Torvane", TorvaneFlora.Taxa, TorvaneFlora.Table);
        var read = SddReader.Read("torvane.xml", Written(flora), [], TestContext.Current.CancellationToken);
        Assert.Empty(read.Problems);
        Assert.Equal(
            flora.Taxa.Select(t => (t.Id, t.Name, t.Authorship, t.Rank)),
            read.Taxa.Select(t => (t.Id, t.Name, t.Authorship, t.Rank))
        );
        Assert.Equal(
            flora.Table!.Characters.Select(c =>
                (c.Id, c.Name, c.Kind, string.Join('|', c.States.Select(s => s.Id + s.Name + s.Definition)))
            ),
            read.Table.Characters.Select(c => (c.Id, c.Name, c.Kind, string.Join('|', c.States.Select(s => s.Id + s.Name + s.Definition))))
        );
        var back = read.Table.Descriptions.ToDictionary(d => d.Taxon);
        foreach (var description in flora.Table.Descriptions)
        {
            foreach (var cell in description.Characters)
            {
                var other = back[description.Taxon].Characters.Single(c => c.Character == cell.Character);
                Assert.Equal(
                    (cell.Applies, cell.Range?.Form, cell.Range?.Low, cell.Range?.High, cell.Range?.LowExtreme, cell.Range?.HighExtreme),
                    (
                        other.Applies,
                        other.Range?.Form,
                        other.Range?.Low,
                        other.Range?.High,
                        other.Range?.LowExtreme,
                        other.Range?.HighExtreme
                    )
                );
                Assert.Equal(cell.States.Select(s => s.State), other.States.Select(s => s.State));
                // Shares go out as the nearest word of frequency.
                Assert.All(cell.States.Zip(other.States), p => Assert.InRange(p.Second.Share, p.First.Share - 0.16, p.First.Share + 0.16));
            }
        }
    }

    [Fact]
    public void AnyFloraComesBackAsItWentOut() => AnyFlora.Each(300, seed =>
        {
            var any = new AnyFlora(seed);
            if (any.Taxa.Count == 0)
                return;
            var read = SddReader.Read(
                "any.xml",
                Written(new Flora("any", "Any", any.Taxa, new CharacterTable(any.Characters, any.Described, []))),
                [],
                TestContext.Current.CancellationToken
            );
            Assert.DoesNotContain(read.Problems, p => p.Severity == ProblemSeverity.Error);
            Assert.Equal(
                any.Taxa.Select(t => (t.Id, t.Name)),
                read.Taxa.OrderBy(t => t.Id, StringComparer.Ordinal).Select(t => (t.Id, t.Name))
            );
            Assert.Equal(
                any.Characters.Select(c => (c.Id, c.Name, c.Kind, string.Join('|', c.States.Select(s => s.Id)))),
                read.Table.Characters.Select(c => (c.Id, c.Name, c.Kind, string.Join('|', c.States.Select(s => s.Id))))
            );
            var back = read.Table.Descriptions.ToDictionary(d => d.Taxon, StringComparer.Ordinal);
            foreach (var cell in any.Described.SelectMany(d => d.Characters.Select(c => (d.Taxon, Cell: c))))
            {
                var other = back[cell.Taxon].Characters.Single(c => c.Character == cell.Cell.Character);
                // Of a count from 5 to 5 it is said that it is 5.
                Assert.Equal(
                    (cell.Cell.Applies, cell.Cell.Range is { } own && own.Low.Equals(own.High) ? other.Range?.Form : cell.Cell.Range?.Form),
                    (other.Applies, other.Range?.Form)
                );
                Assert.Equal(cell.Cell.Range?.Low ?? 0, other.Range?.Low ?? 0, 6);
                Assert.Equal(cell.Cell.Range?.High ?? 0, other.Range?.High ?? 0, 6);
                Assert.Equal(
                    cell.Cell.States.Select(s => s.State).Order(StringComparer.Ordinal),
                    other.States.Select(s => s.State).Order(StringComparer.Ordinal)
                );
            }
        });

    [Fact]
    public void ADocumentThatWasBentIsReadOrRefused()
    {
        var whole = Written(
            new Flora("any", "Any", new AnyFlora(3).Taxa, new CharacterTable(new AnyFlora(3).Characters, new AnyFlora(3).Described, []))
        );
        var random = new Random(5);
        var marks = "<>&\"'/= a0-"u8.ToArray();
        for (var i = 0; i < 1500; i++)
        {
            byte[] bent = random.Next(3) == 0 ? whole[..random.Next(whole.Length)] : [.. whole];
            for (var n = random.Next(1, 4); n > 0 && bent.Length > 0; n--)
                bent[random.Next(bent.Length)] = marks[random.Next(marks.Length)];
            var read = SddReader.Read("bent.xml", bent, [], TestContext.Current.CancellationToken);
            Assert.All(read.Problems, p => Assert.NotEmpty(p.Message));
        }
    }

    [Theory]
    [InlineData("<!DOCTYPE x [<!ENTITY a 'b'>]><Datasets>&a;</Datasets>", "sdd.entities")]
    [InlineData("<!DOCTYPE x SYSTEM 'http://127.0.0.1:9/x.dtd'><Datasets/>", "sdd.entities")]
    [InlineData("<Datasets>&undefined;</Datasets>", "sdd.entities")]
    [InlineData("<Datasets><Dataset/></Datasets>", "sdd.namespace")]
    [InlineData("<Datasets><Dataset>", "sdd.xml")]
    [InlineData("no xml", "sdd.xml")]
    public void WhatIsNoSddIsRefused(string text, string code) =>
        Assert.Equal(
            code,
            Assert.Single(SddReader.Read("x.xml", Encoding.UTF8.GetBytes(text), [], TestContext.Current.CancellationToken).Problems).Code
        );

    [Fact]
    public void NestingWithoutEndIsRefusedBeforeAnythingIsBuilt()
    {
        var text = string.Concat(Enumerable.Repeat("<a>", 2_000_000));
        Assert.Equal(
            "sdd.depth",
            Assert.Single(SddReader.Read("x.xml", Encoding.UTF8.GetBytes(text), [], TestContext.Current.CancellationToken).Problems).Code
        );
    }

    [Fact]
    public void WhatPointsNowhereIsNamedWithItsLine()
    {
        var text =
            $"<Datasets xmlns='{SddWriter.Namespace}'><Dataset>\n<TaxonNames><TaxonName id='t1'><Representation><Label>A b</Label></Representation></TaxonName></TaxonNames>\n<CodedDescriptions><CodedDescription id='d1'><Scope><TaxonName ref='t9'/></Scope></CodedDescription>\n<CodedDescription id='d2'><Scope><TaxonName ref='t1'/></Scope><SummaryData>\n<Categorical ref='c9'/></SummaryData></CodedDescription></CodedDescriptions></Dataset></Datasets>";
        var problems = SddReader.Read("x.xml", Encoding.UTF8.GetBytes(text), [], TestContext.Current.CancellationToken).Problems;
        Assert.Contains(problems, p => p.Code == "taxon.unknown" && p.Row == 3);
        Assert.Contains(problems, p => p.Code == "character.unknown" && p.Row == 5);
    }

    private static FloraReading Read(string start, string repeated, int times, string end)
    {
        using var stream = new MemoryStream();
        stream.Write(Encoding.UTF8.GetBytes(start));
        for (var i = 0; i < times; i++)
            stream.Write(Encoding.UTF8.GetBytes(string.Format(System.Globalization.CultureInfo.InvariantCulture, repeated, i)));
        stream.Write(Encoding.UTF8.GetBytes(end));
        var (bytes, began) = (GC.GetAllocatedBytesForCurrentThread(), TimeProvider.System.GetTimestamp());
        var read = SddReader.Read("x.xml", stream.ToArray(), [], TestContext.Current.CancellationToken);
        TestContext.Current.TestOutputHelper?.WriteLine(
            $"{stream.Length / 1e6:0.0} MB: {TimeProvider.System.GetElapsedTime(began).TotalSeconds:0.00} s, {(GC.GetAllocatedBytesForCurrentThread() - bytes) / 1e6:0} MB allocated"
        );
        return read;
    }

    private const string Start = $"<Datasets xmlns='{SddWriter.Namespace}'><Dataset>";

    /// <summary>Names that are all alike are told apart one after another; more than any flora has are refused.</summary>
    [Fact]
    public void ThreeHundredThousandTaxaOfOneNameAreRefused()
    {
        var read = Read(
            Start + "<TaxonNames>",
            "<TaxonName id='t{0}'><Representation><Label>Alvena rara</Label></Representation></TaxonName>",
            300_000,
            "</TaxonNames></Dataset></Datasets>"
        );
        Assert.Contains(read.Problems, p => p.Code == "sdd.size");
        var most = Read(
            Start + "<TaxonNames>",
            "<TaxonName id='t{0}'><Representation><Label>Alvena rara</Label></Representation></TaxonName>",
            20_000,
            "</TaxonNames></Dataset></Datasets>"
        );
        Assert.Equal(most.Taxa.Count, most.Taxa.Select(t => t.Id).Distinct().Count());
    }

    [Fact]
    public void AMillionAttributesAreRefused() =>
        Assert.Equal(
            "sdd.size",
            Assert
                .Single(Read(Start + "<TaxonNames><TaxonName ", "a{0}='1' ", 1_000_000, "/></TaxonNames></Dataset></Datasets>").Problems)
                .Code
        );

    /// <summary>What looks like attributes within texts, comments and the like isn't counted; what follows is.</summary>
    [Theory]
    [InlineData("<!-- {0} -->", true)]
    [InlineData("<![CDATA[{0}]]>", true)]
    [InlineData("<?x {0}?>", true)]
    [InlineData("{0}", true)]
    [InlineData("<a x=\"{0}\"/>", true)]
    [InlineData("<a y='>' {0}/>", false)]
    [InlineData("<!-- > --><a {0}/>", false)]
    [InlineData("<![CDATA[ ]] > < ]]><a {0}/>", false)]
    public void OnlyAttributesAreCounted(string form, bool passes)
    {
        var attributes = string.Concat(Enumerable.Range(0, 100).Select(i => $"a{i}='1' "));
        var text = Start + string.Format(System.Globalization.CultureInfo.InvariantCulture, form, attributes) + "</Dataset></Datasets>";
        Assert.Equal(
            passes,
            SddReader
                .Read("x.xml", Encoding.UTF8.GetBytes(text), [], TestContext.Current.CancellationToken)
                .Problems.All(p => p.Code != "sdd.size")
        );
    }

    [Fact]
    public void OtherEncodingsAreRefusedRatherThanGuessed() =>
        Assert.Equal(
            "sdd.size",
            Assert
                .Single(
                    SddReader
                        .Read(
                            "x.xml",
                            Encoding.Unicode.GetBytes("<?xml version='1.0' encoding='utf-16'?>" + Start + "</Dataset></Datasets>"),
                            [],
                            TestContext.Current.CancellationToken
                        )
                        .Problems
                )
                .Code
        );

    [Fact]
    public void ADescriptionWithoutEndIsRefused() =>
        Assert.Contains(
            Read(
                Start + "<CodedDescriptions><CodedDescription id='d'><SummaryData>",
                "<Categorical ref='c{0}'/>",
                500_000,
                "</SummaryData></CodedDescription></CodedDescriptions></Dataset></Datasets>"
            ).Problems,
            p => p.Code == "sdd.size"
        );
}
