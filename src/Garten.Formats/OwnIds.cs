namespace Garten.Formats;

/// <summary>Gives each of many like-named things an id of its own: "leaf", "leaf-2", "leaf-3"; in time that grows with their number
/// alone.</summary>
internal sealed class OwnIds
{
    private readonly HashSet<string> _taken = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> _next = new(StringComparer.Ordinal);

    /// <summary>The id wanted, or with the first free number behind it.</summary>
    public string Take(string wanted)
    {
        if (_taken.Add(wanted))
            return wanted;
        var n = _next.GetValueOrDefault(wanted, 2);
        while (!_taken.Add($"{wanted}-{n}"))
            n++;
        _next[wanted] = n + 1;
        return $"{wanted}-{n}";
    }
}
