namespace Garten.Core.Botany;

/// <summary>
/// The identity of a character made of a part and a quality: <c>petiole.hair-density</c>, <c>petiole/gland.number</c> (the glands of the
/// petiole), <c>leaf.colour@beneath</c> (one face or region of the part), <c>petal.relative-length@sepal</c> (beside another part). Ids of
/// older characters have no full stop.
/// </summary>
/// <param name="Owner">Id of the part that has the part; empty where the part has but one place.</param>
/// <param name="Part">Id of the part.</param>
/// <param name="Quality">Id of the quality.</param>
/// <param name="Region">The face or region of the part that is meant, of <see cref="Comparing"/> the part that it is laid beside; empty for
/// the part as a whole.</param>
public readonly record struct CharacterId(string Owner, string Part, string Quality, string Region)
{
    /// <summary>The faces and regions that an id can name.</summary>
    public static IReadOnlyList<string> Regions { get; } = ["above", "beneath", "base", "middle", "tip", "inside", "outside"];

    /// <summary>Id of the quality that compares the length of a part with that of another one, which stands in the place of a
    /// region.</summary>
    public const string Comparing = "relative-length";

    /// <summary>The part with its owner: <c>petiole/gland</c>.</summary>
    public string Path => Owner.Length == 0 ? Part : $"{Owner}/{Part}";

    /// <summary>Whether a text has the form of such an id; the parts and qualities in it needn't exist.</summary>
    public static bool IsComposed(string id) => id is not null && id.Contains('.', StringComparison.Ordinal);

    /// <summary>Reads an id; null where it hasn't the form of one.</summary>
    public static CharacterId? Read(string id)
    {
        ArgumentNullException.ThrowIfNull(id);
        var dot = id.IndexOf('.', StringComparison.Ordinal);
        if (dot <= 0 || dot == id.Length - 1)
            return null;
        var (path, quality) = (id[..dot], id[(dot + 1)..]);
        var region = "";
        if (quality.IndexOf('@', StringComparison.Ordinal) is > 0 and var at)
            (quality, region) = (quality[..at], quality[(at + 1)..]);
        var slash = path.IndexOf('/', StringComparison.Ordinal);
        var (owner, part) = slash > 0 ? (path[..slash], path[(slash + 1)..]) : ("", path);
        return
            IsName(part)
            && IsName(quality)
            && (owner.Length == 0 || IsName(owner))
            && (region.Length == 0 || Regions.Contains(region) || quality == Comparing && IsName(region))
            ? new CharacterId(owner, part, quality, region)
            : null;
    }

    /// <summary>Whether a text can be the id of a part, a quality or a state: small letters, digits and single hyphens, no longer than
    /// 60.</summary>
    public static bool IsName(string text)
    {
        const int longest = 60;
        if (string.IsNullOrEmpty(text) || text.Length > longest || text[0] == '-' || text[^1] == '-')
            return false;
        return text.All(c => c is (>= 'a' and <= 'z') or (>= '0' and <= '9') or '-') && !text.Contains("--", StringComparison.Ordinal);
    }

    /// <summary>The id as it is written.</summary>
    public override string ToString() => $"{Path}.{Quality}{(Region.Length > 0 ? "@" + Region : "")}";
}
