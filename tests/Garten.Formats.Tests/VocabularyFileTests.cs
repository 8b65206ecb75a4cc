using System.Text.Json;
using Garten.Core.Botany;
using Garten.Core.Contracts;
using Garten.Core.Packs;
using Xunit;

namespace Garten.Formats.Tests;

/// <summary>The vocabulary that ships in its binary form and back.</summary>
public sealed class VocabularyFileTests
{
    private static readonly Vocabulary Shipped = ShippedVocabulary.Botany.Vocabulary;

    private static string Json(Vocabulary vocabulary) => JsonSerializer.Serialize(vocabulary, CoreJson.Default.Vocabulary);

    [Fact]
    public void ItComesBackAsItWentOut() =>
        Assert.Equal(Json(Shipped), Json(VocabularyFile.Read(VocabularyFile.Write(Shipped, "")).Vocabulary));

    [Fact]
    public void SoDoesOneWithWhatCuratorsAdded()
    {
        var state = Shipped.Qualities[0].States[0] with
        {
            ReplacedBy = "other",
            DrawnAs = "hairs.few",
            Picture = "data:image/png;base64,AA==",
        };
        var added = Shipped with
        {
            Parts = [.. Shipped.Parts, Shipped.Parts[0] with { Id = "new-part", ReplacedBy = "leaf" }],
            Qualities = [Shipped.Qualities[0] with { States = [state], ReplacedBy = "shape" }],
            Words = null,
        };
        Assert.Equal(Json(added), Json(VocabularyFile.Read(VocabularyFile.Write(added, "")).Vocabulary));
    }

    [Fact]
    public void WhatIsNoneOrCutOffIsRefused()
    {
        var bytes = VocabularyFile.Write(Shipped, "");
        Assert.Throws<PackFormatException>(() => VocabularyFile.Read([1, 2, 3]));
        Assert.Throws<PackFormatException>(() => VocabularyFile.Read([.. bytes.Take(bytes.Length / 3)]));
    }
}
