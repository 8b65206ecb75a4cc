using Garten.Core.Keys;
using Xunit;

namespace Garten.Core.Tests.Keys;

/// <summary>What may stand at the end of a lead besides a bare name: none of it makes another taxon or another couplet.</summary>
public sealed class LeadEndTests
{
    private static (string End, IReadOnlyList<KeyProblem> Problems) Read(string end, string leader = " ..... ")
    {
        var text =
            $"Key to Ondrelia\n1. Leaves opposite{leader}{end}\n1. Leaves alternate ..... 2\n2. Fruit dry ..... 3\n2. Fruit red ..... Ondrelia rubra Tove\n3. Bark grey ..... Ondrelia grisea Tove\n3. Bark brown ..... Ondrelia fusca Tove\n";
        var reading = KeyTextReader.Read(text);
        var lead = reading.Keys.Single().Couplets[0].Leads[0];
        var outline = KeyOutline.Of(new Key("", KeyLayout.Bracketed, [], [new Couplet("1", [lead])]));
        Assert.StartsWith("1: Leaves opposite => ", outline, StringComparison.Ordinal);
        return (outline["1: Leaves opposite => ".Length..].Trim(), reading.Problems);
    }

    // Behind dots, and behind a single space, as text out of a PDF comes.
    [Theory]
    [InlineData("Ondrelia alba Hask. [= O. nivea Tove]", "Ondrelia alba | Hask. [= O. nivea Tove]")]
    [InlineData("Ondrelia alba (syn. O. nivea)", "Ondrelia alba [= O. nivea]")]
    [InlineData("Ondrelia alba (Syn.: O. nivea Tove, O. candida)", "Ondrelia alba [= O. nivea Tove, O. candida]")]
    [InlineData("Ondrelia alba = O. nivea Tove", "Ondrelia alba [= O. nivea Tove]")]
    [InlineData("Ondrelia alba (see also O. nigra)", "Ondrelia alba (see also O. nigra)")]
    [InlineData("Ondrelia alba; see also O. nigra", "Ondrelia alba (see also O. nigra)")]
    [InlineData("Ondrelia alba, see also O. nigra", "Ondrelia alba (see also O. nigra)")]
    [InlineData("Ondrelia alba see also O. nigra", "Ondrelia alba (see also O. nigra)")]
    [InlineData("Ondrelia alba or O. nigra", "Ondrelia alba or Ondrelia nigra")]
    [InlineData("Ondrelia alba or Ondrelia nigra", "Ondrelia alba or Ondrelia nigra")]
    [InlineData("Ondrelia alba, O. nigra", "Ondrelia alba or Ondrelia nigra")]
    [InlineData("Ondrelia alba / O. nigra / O. fusca", "Ondrelia alba or Ondrelia nigra or Ondrelia fusca")]
    [InlineData("Ondrelia alba or nigra", "Ondrelia alba or Ondrelia nigra")]
    [InlineData("Ondrelia alba and Robrisca nigra", "Ondrelia alba or Robrisca nigra")]
    [InlineData("Ondrelia alba Hask., O. nigra Tove or O. fusca Tove", "Ondrelia alba | Hask. or Ondrelia nigra or Ondrelia fusca")]
    [InlineData("Ondrelia alba p.p.", "Ondrelia alba (p.p.)")]
    [InlineData("Ondrelia alba Hask. pro parte", "Ondrelia alba | Hask. (pro parte)")]
    [InlineData("Ondrelia alba (in part)", "Ondrelia alba (in part)")]
    [InlineData("Ondrelia alba, in part", "Ondrelia alba (in part)")]
    [InlineData("Ondrelia alba †", "Ondrelia alba (†)")]
    [InlineData("†Ondrelia alba", "Ondrelia alba (†)")]
    [InlineData("Ondrelia alba +", "Ondrelia alba (+)")]
    [InlineData("+Ondrelia alba Hask.", "Ondrelia alba | Hask. (+)")]
    [InlineData("Ondrelia alba ?", "Ondrelia alba (?)")]
    [InlineData("Ondrelia alba?", "Ondrelia alba (?)")]
    [InlineData("?Ondrelia alba", "Ondrelia alba (?)")]
    [InlineData("Ondrelia cf. alba", "Ondrelia alba (cf.)")]
    [InlineData("Ondrelia aff. alba Hask.", "Ondrelia alba | Hask. (aff.)")]
    [InlineData("cf. Ondrelia alba", "Ondrelia alba (cf.)")]
    [InlineData("Ondrelia alba agg.", "Ondrelia alba agg.")]
    [InlineData("Ondrelia alba s.l.", "Ondrelia alba s.l.")]
    [InlineData("Ondrelia alba s. lat.", "Ondrelia alba s.l.")]
    [InlineData("Ondrelia alba sensu lato", "Ondrelia alba s.l.")]
    [InlineData("Ondrelia alba s.str.", "Ondrelia alba s.str.")]
    [InlineData("Ondrelia alba s. str.", "Ondrelia alba s.str.")]
    [InlineData("Ondrelia alba sensu stricto", "Ondrelia alba s.str.")]
    [InlineData("Ondrelia alba (Fig. 4.7)", "Ondrelia alba p. Fig. 4.7")]
    [InlineData("Ondrelia alba (Pl. 3, 5)", "Ondrelia alba p. Pl. 3, 5")]
    [InlineData("Ondrelia alba Hask. (figs 3–5)", "Ondrelia alba | Hask. p. figs 3–5")]
    [InlineData("Ondrelia alba (p. 12)", "Ondrelia alba p. 12")]
    [InlineData("Ondrelia alba (rare; coasts only)", "Ondrelia alba (rare; coasts only)")]
    [InlineData("Ondrelia alba (introduced)", "Ondrelia alba (introduced)")]
    [InlineData("Ondrelia alba (on limestone, 2 sites)", "Ondrelia alba (on limestone, 2 sites)")]
    [InlineData("Ondrelia alba (silver ondrel)", "Ondrelia alba \"silver ondrel\"")]
    [InlineData("Ondrelia alba (silver ondrel) (Fig. 2)", "Ondrelia alba \"silver ondrel\" p. Fig. 2")]
    [InlineData("Ondrelia alba (Hask.) Tove", "Ondrelia alba | (Hask.) Tove")]
    [InlineData("Ondrelia ×incerta Hask. (O. alba × O. nigra)", "Ondrelia × incerta | Hask. (O. alba × O. nigra)")]
    [InlineData("Ondrelia alba × O. nigra", "Ondrelia alba × O. nigra")]
    [InlineData("*Ondrelia alba*", "Ondrelia alba")]
    [InlineData("*Ondrelia alba* Hask. (syn. *O. nivea*)", "Ondrelia alba | Hask. [= O. nivea]")]
    public void AnEndIsItsTaxonAndWhatIsSaidOfIt(string end, string expected)
    {
        var (read, problems) = Read(end);
        Assert.Equal(expected, read);
        Assert.Empty(problems);
        // A sign before the name needs a leader to be told from the sentence.
        if (char.IsUpper(end[0]))
            Assert.Equal(expected, Read(end, " ").End);
    }

    [Theory]
    [InlineData("3 on page 4", "3 p. 4")]
    [InlineData("3 (on page 4)", "3 p. 4")]
    [InlineData("go to couplet 3 on p. 4", "3 p. 4")]
    [InlineData("see 3 below", "3")]
    [InlineData("3 below", "3")]
    [InlineData("3 (below)", "3")]
    [InlineData("go to 3 overleaf", "3")]
    [InlineData("see couplet 3 on the next page", "3")]
    [InlineData("3, p. 12", "3 p. 12")]
    [InlineData("couplet 3 above", "3")]
    public void ANumberWithTheWayToItIsThatCouplet(string end, string expected)
    {
        var (read, problems) = Read(end);
        Assert.Equal(expected, read);
        Assert.Empty(problems);
    }

    /// <summary>What can be meant in two ways is read in the likelier one and asked about, at its place.</summary>
    [Theory]
    [InlineData("Ondrelia alba (O. nivea)", "Ondrelia alba [= O. nivea]")]
    [InlineData("Ondrelia alba growing on walls by the harbour", "Ondrelia alba (growing on walls by the harbour)")]
    [InlineData("Ondrelia alba Hask. with hairy leaves", "Ondrelia alba | Hask. (with hairy leaves)")]
    public void WhatCanBeMeantInTwoWaysIsAskedAbout(string end, string expected)
    {
        var (read, problems) = Read(end);
        Assert.Equal(expected, read);
        var problem = Assert.Single(problems);
        Assert.Equal(("end.unsure", 2), (problem.Code, problem.Line));
    }

    /// <summary>What the page offers settles the question: the text changed so is read without one.</summary>
    [Theory]
    [InlineData("Ondrelia alba (O. nivea)", "It is a synonym", "Ondrelia alba [= O. nivea]")]
    [InlineData("Ondrelia alba (O. nivea)", "It may be either", "Ondrelia alba or Ondrelia nivea")]
    [InlineData("Ondrelia alba growing on walls", "It is a note", "Ondrelia alba (growing on walls)")]
    public void AQuestionIsSettledByOneOfItsChoices(string end, string label, string expected)
    {
        var change = Read(end).Problems.Single().Choices!.Single(c => c.Label == label);
        var line = "1. Leaves opposite ..... " + end;
        Assert.Equal((2, line.IndexOf(change.Old, StringComparison.Ordinal) + 1), (change.Line, change.Column));
        var (read, problems) = Read(end.Replace(change.Old, change.New, StringComparison.Ordinal));
        Assert.Equal(expected, read);
        Assert.Empty(problems);
    }

    private static IEnumerable<(string End, string Expected)> SetOf(string name) =>
        File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Keys", $"lead-ends-{name}.txt"))
            .Skip(2)
            .Where(l => l.Length > 0)
            .Select(l => (l[..l.LastIndexOf('|')].TrimEnd(), l[(l.LastIndexOf('|') + 1)..].Trim()));

    /// <summary>
    /// Ends that were written before the reader saw any of them: nearly all are read right, the others asked about, and none is another
    /// taxon in
    /// silence. First figures, before anything was mended: 123 of 139 right, 4 asked, 12 wrong; behind a single space 77 of 114, 26 and 11;
    /// of the third set 41 of 56, 0 and 15; 27 of 53, 7 and 19.
    /// </summary>
    [Theory]
    [InlineData("second", " ..... ", 0.95)]
    [InlineData("second", " ", 0.78)]
    [InlineData("third", " ..... ", 0.89)]
    [InlineData("third", " ", 0.66)]
    public void EndsThatNobodyTunedToAreReadRightOrAskedAbout(string set, string leader, double least)
    {
        var (right, asked) = (0, 0);
        var wrong = new List<string>();
        var all = SetOf(set).Where(e => leader.Length > 1 || char.IsUpper(e.End[0]) && e.End.Any(char.IsLower)).ToList();
        foreach (var (end, expected) in all)
        {
            var text =
                $"Key to Ondrelia\n1. Leaves opposite{leader}{end}\n1. Leaves alternate ..... 2\n2. Fruit dry ..... 3\n2. Fruit red ..... Ondrelia rubra Tove\n3. Bark grey ..... Ondrelia grisea Tove\n3. Bark brown ..... Ondrelia fusca Tove\n";
            var reading = KeyTextReader.Read(text);
            var to = reading.Keys.SelectMany(k => k.Couplets).FirstOrDefault()?.Leads[0].Destination;
            var read = to switch
            {
                null => "nowhere",
                { Kind: DestinationKind.Taxon } => string.Join(" or ", to.Taxa.Select(t => t.Name)),
                _ => $"→ {to.Target}",
            };
            if (read == expected)
                right++;
            else if (reading.Problems.Count > 0)
                asked++;
            else
                wrong.Add($"“{end}” is {read}, not {expected}");
        }
        Assert.True(
            right >= least * all.Count && wrong.Count == 0,
            $"{right} right and {asked} asked of {all.Count}; in silence: \n{string.Join('\n', wrong)}"
        );
    }

    [Fact]
    public void AnOpenEndLeavesAllItsTaxaStanding()
    {
        var key = KeyTextReader
            .Read("Key to Ondrelia\n1. Leaves opposite ... Ondrelia alba or O. nigra\n1. Leaves alternate ... Ondrelia fusca\n")
            .Keys.Single();
        var shelf = new KeyShelf([new KeyVersion("k", key)]);
        Assert.Equal(
            ["Ondrelia alba", "Ondrelia nigra"],
            KeyWalk.Follow(shelf, "k", [new TrailAnswer("k", "1", 0)]).Standing.Select(s => s.Name)
        );
        Assert.Equal(
            ["Ondrelia alba", "Ondrelia nigra", "Ondrelia fusca"],
            KeyWalk.Follow(shelf, "k", []).Open.Single().Taxa.SelectMany(t => t).Select(t => t.Name)
        );
        // Written out and read again it is the same key.
        Assert.Equal(KeyHash.Of(key), KeyHash.Of(KeyTextReader.Read(KeyTextWriter.Write(key, KeyLayout.Bracketed)).Keys.Single()));
    }

    [Fact]
    public void ACommonNameBehindAFullStopStandsBeforeItsNameInBrackets()
    {
        var lead = KeyTextReader
            .Read("1. Bark smooth. Silver thornwood (Vellorna alba)\n1. Bark rough. Black thornwood (Vellorna nigra)\n")
            .Keys.Single()
            .Couplets[0]
            .Leads[0];
        Assert.Equal(["Bark smooth"], lead.Statements);
        Assert.Equal(("Vellorna alba", "Silver thornwood"), (lead.Destination!.Target, lead.Destination.Taxon!.CommonName));
    }

    [Fact]
    public void MarksOfItalicsLeaveTheStatements()
    {
        var lead = KeyTextReader
            .Read("1. Leaf *margin* entire; _buds_ as in *Vellorna* ... Ondrelia alba\n1. Leaf toothed ... Ondrelia nigra\n")
            .Keys.Single()
            .Couplets[0]
            .Leads[0];
        Assert.Equal(["Leaf margin entire", "buds as in Vellorna"], lead.Statements);
    }

    [Fact]
    public void PrintReadByAMachineIsReadAsItWasPrinted()
    {
        var reading = KeyTextReader.Read(
            "1 . Leaves opposite ... 2\n1 . Leaves alternate ... T . brevis Tove\n2 . Bark grey ... Tharsina longa Tove\n2 . Bark red ... T . rubra Tove\n"
        );
        Assert.DoesNotContain(reading.Problems, p => p.Severity == Garten.Core.Floras.ProblemSeverity.Error);
        Assert.Equal(["T. brevis", "Tharsina longa", "T. rubra"], reading.Keys.Single().Taxa().Select(t => t.Name));
    }

    [Fact]
    public void TheSourceOfAPageIsReadLikeThePage()
    {
        const string page =
            "<html><body>\n<h2>Key to Ondrelia</h2>\n<table><tr><td>1</td><td>Leaves opposite &amp; &lt; 3 cm</td><td>2</td></tr>\n<tr><td>&ndash;</td><td>Leaves alternate</td><td><i>Ondrelia alba</i> Hask.</td></tr>\n<tr><td>2</td><td>Bark grey</td><td><em>Ondrelia nigra</em></td></tr><tr><td>&ndash;</td><td>Bark red</td><td><em>Ondrelia rubra</em></td></tr></table>\n</body></html>";
        var reading = KeyTextReader.Read(page);
        Assert.DoesNotContain(reading.Problems, p => p.Severity == Garten.Core.Floras.ProblemSeverity.Error);
        var key = reading.Keys.Single();
        Assert.Equal("Key to Ondrelia", key.Title);
        Assert.Equal(["Leaves opposite & < 3 cm"], key.Couplets[0].Leads[0].Statements);
        Assert.Equal(["Ondrelia alba", "Ondrelia nigra", "Ondrelia rubra"], key.Taxa().Select(t => t.Name));
    }

    [Theory]
    [InlineData(
        "1. Leaf arrangement?\n   opposite ... 2\n   alternate ... Ondrelia alba\n2. Bark?\n   a. grey ... Ondrelia nigra\n   b. red ... Ondrelia rubra\n",
        "Leaf arrangement: opposite"
    )]
    [InlineData(
        "1. Are the leaves opposite?\nYes ... 2\nNo ... Ondrelia alba\n2. Is the bark grey?\nYes ... Ondrelia nigra\nNo ... Ondrelia rubra\n",
        "Are the leaves opposite? Yes"
    )]
    [InlineData(
        "1. Leaves:\n- opposite ... 2\n- alternate ... Ondrelia alba\n2. Bark:\n- grey ... Ondrelia nigra\n- red ... Ondrelia rubra\n",
        "Leaves opposite"
    )]
    public void AQuestionWithAnswersBelowIsACouplet(string text, string statement)
    {
        var reading = KeyTextReader.Read(text);
        Assert.DoesNotContain(reading.Problems, p => p.Severity == Garten.Core.Floras.ProblemSeverity.Error);
        var key = reading.Keys.Single();
        Assert.Equal(statement, key.Couplets[0].Leads[0].Statements.Single());
        Assert.Equal(["Ondrelia alba", "Ondrelia nigra", "Ondrelia rubra"], key.Taxa().Select(t => t.Name).Order());
    }
}
