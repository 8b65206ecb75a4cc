using Garten.Core.Keys;
using Xunit;

namespace Garten.Core.Tests.Keys;

public sealed class StatementSplitterTests
{
    [Theory]
    [InlineData("Leaves opposite; fruit winged", "Leaves opposite|fruit winged")]
    [InlineData("Leaves opposite. Fruit winged.", "Leaves opposite|Fruit winged")]
    [InlineData("Leaves 2.5 cm long, c. 1 mm thick. Buds smooth", "Leaves 2.5 cm long, c. 1 mm thick|Buds smooth")]
    [InlineData(
        "Fruit (red; rarely white. Or blue) winged; seeds [2. 3] flat",
        "Fruit (red; rarely white. Or blue) winged|seeds [2. 3] flat"
    )]
    [InlineData("Lvs. opposite, e.g. toothed; infl. a raceme", "Lvs. opposite, e.g. toothed|infl. a raceme")]
    [InlineData("Petals 5 mm. Sepals hairy", "Petals 5 mm|Sepals hairy")]
    [InlineData("Like V. alba but larger; bark grey", "Like V. alba but larger|bark grey")]
    [InlineData("An open ( bracket; that never closes", "An open ( bracket|that never closes")]
    [InlineData("  Leaves\topposite ;; ; fruit  red,", "Leaves opposite|fruit red")]
    [InlineData("Flowering in Sept. and later", "Flowering in Sept. and later")]
    [InlineData("", "")]
    public void CutsAtSemicolonsAndFullStops(string text, string expected) =>
        Assert.Equal(expected, string.Join('|', StatementSplitter.Split(text)));
}
