using Garten.Core.Keys;
using Xunit;

namespace Garten.Core.Tests.Keys;

public sealed class KeyTitleTests
{
    [Theory]
    [InlineData("Key B. Winter twigs", "Key B", true)]
    [InlineData("KEY B – Winter twigs", "key b", true)]
    [InlineData("Key B Winter twigs", "Key B", true)]
    [InlineData("Key to the species of Vellorna", "Vellorna", true)]
    [InlineData("II. Key to the species of Vellorna", "go to Key to Vellorna", true)]
    [InlineData("Group 2: Conifers", "Group 2", true)]
    [InlineData("Key to the woody plants", "Key to the woody plants", true)]
    [InlineData("Key B", "Key C", false)]
    [InlineData("Key to Birches", "Key B", false)]
    [InlineData("Key to Vellorna", "Carpessa", false)]
    [InlineData("", "Key B", false)]
    public void KeysAreKnownByTitleOrItsFirstPart(string title, string reference, bool named) =>
        Assert.Equal(named, KeyTitle.IsNamedBy(title, reference));
}
