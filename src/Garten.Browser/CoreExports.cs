using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Keys;

namespace Garten.Browser;

/// <summary>The core for the browser's worker: JSON in, JSON out, nothing else.</summary>
public static partial class CoreExports
{
    private static KeyShelf _shelf = new([]);

    /// <summary>Reads a key text.</summary>
    [JSExport]
    public static string ReadKeyText(string request)
    {
        var text = JsonSerializer.Deserialize(request, CoreJson.Default.ReadKeyTextRequest)!.Text;
        return JsonSerializer.Serialize(KeyTextReader.Read(text), CoreJson.Default.KeyReading);
    }

    /// <summary>Puts key versions and taxa on the shelf that walks go through, in place of those that were there.</summary>
    [JSExport]
    public static string FillShelf(string shelf)
    {
        var filled = JsonSerializer.Deserialize(shelf, CoreJson.Default.Shelf)!;
        _shelf = new KeyShelf(filled.Versions, filled.Taxa);
        return "true";
    }

    /// <summary>Follows the keys on the shelf.</summary>
    [JSExport]
    public static string Walk(string request)
    {
        var walk = JsonSerializer.Deserialize(request, CoreJson.Default.WalkRequest)!;
        return JsonSerializer.Serialize(KeyWalk.Follow(_shelf, walk.Start, walk.Answers), CoreJson.Default.WalkState);
    }
}
