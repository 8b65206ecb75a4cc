namespace Garten.Core.Floras;

/// <summary>Finds names that are spelled nearly alike, one of which may be a slip.</summary>
public static class NearNames
{
    // With more names than this only slips of one letter are looked for: comparing each with each would take seconds.
    private const int MostForPairs = 600;

    // More pairs than anybody looks through: then the names are a series, such as "species a" to "species z".
    private const int MostPairs = 200;

    // So many names that are one letter apart are a series, not slips.
    private const int MostInGroup = 40;

    // Words shorter than this differ by a letter as a rule, not by a slip.
    private const int ShortestWord = 4;

    // Two slips in one word are a slip of the same name only in long words.
    private const int LongWord = 8;

    /// <summary>
    /// Pairs of names that differ by a single letter (missing, added, another, or two swapped), by two letters in a long word, by the
    /// Latin ending of the same stem (<c>alba</c>, <c>albus</c>), or by case alone. Each pair once, the name that comes first in
    /// <paramref name="names"/> first, up to about 200 pairs. Names that differ in a digit or in a word of under four letters are taken as
    /// meant.
    /// </summary>
    public static IReadOnlyList<(string First, string Second)> Pairs(IReadOnlyList<string> names)
    {
        var order = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var i = 0; i < names.Count; i++)
            order.TryAdd(names[i], i);
        var pairs = new HashSet<(int, int)>();
        var found = new List<(string, string)>();
        var groups = new Dictionary<string, List<string>>(StringComparer.Ordinal);
        foreach (var name in order.Keys)
        {
            if (found.Count >= MostPairs)
                break;
            var folded = Fold(name);
            foreach (var form in Deletions(folded).Append(folded))
            {
                if (!groups.TryGetValue(form, out var group))
                    groups[form] = group = [];
                foreach (var other in group)
                    Consider(other, name);
                if (group.Count < MostInGroup)
                    group.Add(name);
            }
        }
        if (order.Count <= MostForPairs && found.Count < MostPairs)
        {
            var all = order.Keys.ToList();
            for (var i = 0; i < all.Count; i++)
            {
                for (var j = i + 1; j < all.Count; j++)
                    Consider(all[i], all[j]);
            }
        }
        found.Sort((a, b) => (order[a.Item1], order[a.Item2]).CompareTo((order[b.Item1], order[b.Item2])));
        return found;

        void Consider(string a, string b)
        {
            var (first, second) = order[a] < order[b] ? (a, b) : (b, a);
            if (first == second || !AreNear(first, second) || !pairs.Add((order[first], order[second])))
                return;
            found.Add((first, second));
        }
    }

    /// <summary>Whether two different names are spelled so alike that one may be a slip of the other.</summary>
    public static bool AreNear(string a, string b)
    {
        if (string.Equals(a, b, StringComparison.Ordinal))
            return false;
        var left = Fold(a).Split(' ');
        var right = Fold(b).Split(' ');
        if (left.Length != right.Length)
            return false;
        var differing = Enumerable.Range(0, left.Length).Where(i => left[i] != right[i]).ToList();
        if (differing.Count == 0)
            return true;
        if (differing.Count > 1)
            return false;
        var (x, y) = (left[differing[0]], right[differing[0]]);
        if (x.Any(char.IsDigit) || y.Any(char.IsDigit))
            return false;
        // "V. alba" and "Vellorna alba" are an abbreviation, "subsp." and "var." are ranks.
        if (x.EndsWith('.') || y.EndsWith('.'))
            return false;
        if (Math.Min(x.Length, y.Length) < ShortestWord)
            return false;
        if (differing[0] > 0 && Stem(x) is { Length: >= 3 } stem && stem == Stem(y))
            return true;
        var most = Math.Min(x.Length, y.Length) >= LongWord ? 2 : 1;
        var distance = Distance(x, y, most);
        return distance <= most && (distance < 2 || x[..3] == y[..3]);
    }

    // Capital letters and the letters that are written one for the other in Latin names count alike.
    private static string Fold(string name) => name.ToLowerInvariant();

    private static readonly string[] Endings = ["us", "um", "is", "es", "er", "a", "e"];

    private static string? Stem(string word)
    {
        var ending = Array.Find(Endings, e => word.EndsWith(e, StringComparison.Ordinal));
        return ending is null ? null : word[..^ending.Length];
    }

    private static IEnumerable<string> Deletions(string name)
    {
        for (var i = 0; i < name.Length; i++)
        {
            if (i == 0 || name[i] != name[i - 1])
                yield return name.Remove(i, 1);
        }
    }

    /// <summary>
    /// Edits between two words, swapped neighbours counted as one (optimal string alignment, after Damerau 1964);
    /// more than <paramref name="most"/> is given as <paramref name="most"/> + 1.
    /// </summary>
    private static int Distance(string a, string b, int most)
    {
        if (Math.Abs(a.Length - b.Length) > most)
            return most + 1;
        var before = new int[b.Length + 1];
        var last = new int[b.Length + 1];
        var row = new int[b.Length + 1];
        for (var j = 0; j <= b.Length; j++)
            last[j] = j;
        for (var i = 1; i <= a.Length; i++)
        {
            row[0] = i;
            var least = i;
            for (var j = 1; j <= b.Length; j++)
            {
                var cost = a[i - 1] == b[j - 1] ? 0 : 1;
                row[j] = Math.Min(Math.Min(row[j - 1] + 1, last[j] + 1), last[j - 1] + cost);
                if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                    row[j] = Math.Min(row[j], before[j - 2] + 1);
                least = Math.Min(least, row[j]);
            }
            if (least > most)
                return most + 1;
            (before, last, row) = (last, row, before);
        }
        return last[b.Length];
    }
}
