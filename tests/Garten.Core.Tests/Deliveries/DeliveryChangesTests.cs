using Garten.Core.Deliveries;
using Xunit;

namespace Garten.Core.Tests.Deliveries;

public sealed class DeliveryChangesTests
{
    private static DeliveredRecord Record(int number, string name, string mark = "as it was") =>
        new(new Guid(number, 0, 0, new byte[8]), name, mark);

    [Fact]
    public void NewDeterminationsAndWithdrawalsFollowUnderTheSameIds()
    {
        var known = new[] { Record(1, "Alvena alba"), Record(2, "Alvena nigra"), Record(3, "Brontia lenta"), Record(4, "Brontia alta") };
        DeliveredRecord[] now = [Record(5, "Carpessa rubra"), Record(1, "Alvena alba"), Record(2, "Alvena montis", "otherwise")];
        var changes = DeliveryChanges.Of(known.ToDictionary(r => r.Id), now, id => id == Record(4, "").Id);
        Assert.Equal(
            [
                ("Carpessa rubra", DeliveredState.New, ""),
                ("Alvena alba", DeliveredState.Unchanged, "Alvena alba"),
                ("Alvena montis", DeliveredState.Changed, "Alvena nigra"),
                // The fourth holds still, elsewhere than was asked for: it is let alone.
                ("Brontia lenta", DeliveredState.Withdrawn, "Brontia lenta"),
            ],
            changes.Select(c => (c.Record.Name, c.State, c.NameBefore))
        );
        // Sent again, nothing is left to send.
        var after = changes.Where(c => c.State != DeliveredState.Withdrawn).ToDictionary(c => c.Record.Id, c => c.Record);
        Assert.All(DeliveryChanges.Of(after, now, _ => false), c => Assert.Equal(DeliveredState.Unchanged, c.State));
        // What was withdrawn and holds again is new.
        Assert.Equal(DeliveredState.New, DeliveryChanges.Of(after, [.. now, Record(3, "Brontia lenta")], _ => false)[^1].State);
    }
}
