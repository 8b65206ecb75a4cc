using Garten.Core.Keys;
using Xunit;

namespace Garten.Core.Tests.Keys;

/// <summary>A key as it is drawn in a list.</summary>
public sealed class KeyShapeTests
{
    private static IReadOnlyList<KeyNode> Of(string text) => KeyShape.Of(KeyTextReader.Read(text).Keys[0]);

    [Fact]
    public void EndsStandSideBySideAndCoupletsAboveThem()
    {
        var nodes = Of(
            """
            Key to the woods
            1 Leaves opposite ... 2
            - Leaves alternate ... Key to the alders
            2 Fruit a samara ... Fraxa alta
            - Fruit a berry ... Ligua nigra
            """
        );
        Assert.Equal(
            [
                new KeyNode(KeyNodeKind.Couplet, "1", 0.625, 0, -1),
                new KeyNode(KeyNodeKind.Couplet, "2", 0.25, 1, 0),
                new KeyNode(KeyNodeKind.Key, "", 1, 1, 0),
                new KeyNode(KeyNodeKind.Taxon, "", 0, 2, 1),
                new KeyNode(KeyNodeKind.Taxon, "", 0.5, 2, 1),
            ],
            nodes
        );
    }

    [Fact]
    public void OfALargeKeyTheBeginningIsDrawn()
    {
        var lines = Enumerable
            .Range(1, 400)
            .Select(i =>
                $"{i} Leaves {i} mm ... {(i < 400 ? i + 1 : "Alvena ultima")}\n- Leaves larger ... Alvena s{new string((char)('a' + i % 26), 1 + i / 26)}"
            );
        var nodes = Of("Key to many\n" + string.Join('\n', lines));
        Assert.InRange(nodes.Count, KeyShape.MostNodes - 2, KeyShape.MostNodes);
        Assert.Equal(KeyNodeKind.Cut, nodes.Single(n => n.Kind == KeyNodeKind.Cut).Kind);
        Assert.All(nodes, n => Assert.InRange(n.At, 0, 1));
        Assert.All(nodes.Index().Skip(1), n => Assert.True(n.Item.From < n.Index));
    }

    [Fact]
    public void AKeyWithoutCoupletsHasNoShape() => Assert.Empty(KeyShape.Of(new Key("Nothing", KeyLayout.Bracketed, [], [])));
}
