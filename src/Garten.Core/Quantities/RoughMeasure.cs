using System.Globalization;
using System.Text.RegularExpressions;

namespace Garten.Core.Quantities;

/// <summary>
/// Measures as they are said in the field: "under one thumb", "almost 3 cards", "2 to 3 cm", "half of it", "twice the pencil", "as long as
/// my hand". Each is an interval; its width is the step of the reading (the variance of a value that may lie anywhere in it is width²/12),
/// and the object brings its own uncertainty.
/// </summary>
public static partial class RoughMeasure
{
    // "Almost 3" is anything from 85 % of it on, "just over" up to 115 %, "about" within as much.
    private const double Nearly = 0.15;

    // "Over 2" is hardly more than twice that, or one would have said so.
    private const double OverUpTo = 2;

    // An object is read to a quarter at best.
    private const double ObjectStep = 0.25;

    private static readonly string[] Under = ["under", "less than", "below", "at most", "up to", "shorter than", "no more than", "<"];
    private static readonly string[] Over = ["over", "more than", "above", "at least", "longer than", ">"];
    private static readonly string[] Almost = ["almost", "nearly", "not quite", "just under", "barely"];
    private static readonly string[] JustOver = ["just over", "a little over", "slightly over", "a bit over", "a good"];
    private static readonly string[] About = ["about", "around", "roughly", "approximately", "ca.", "ca", "c.", "some", "~"];
    private static readonly string[] LongAs = ["as long as", "as wide as", "as high as", "the length of", "the width of", "the height of"];

    /// <summary>Reads a rough measure of a length.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="objects">The objects of one's own; each by the last word of its name too.</param>
    /// <param name="unit">The unit of numbers without one, where no object is named.</param>
    /// <param name="it">What "it" is; null where nothing was chosen.</param>
    /// <returns>Null where the text is no rough measure, so that it is read as readings.</returns>
    public static ReadingLine? Read(string text, IReadOnlyList<CalibratedObject> objects, MeasureUnit? unit, CalibratedObject? it)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(objects);
        var rest = Spaces().Replace(text.Trim(), " ").ToLowerInvariant();
        if (rest.Length is 0 or > 200)
            return null;
        var isRough = false;
        bool Takes(string[] words)
        {
            foreach (var word in words.OrderByDescending(w => w.Length))
            {
                if (
                    !rest.StartsWith(word, StringComparison.Ordinal)
                    || rest.Length > word.Length && char.IsLetter(word[^1]) && char.IsLetterOrDigit(rest[word.Length])
                )
                    continue;
                rest = rest[word.Length..].TrimStart();
                return isRough = true;
            }
            return false;
        }
        // The longer phrases first: "just under" before "under".
        var bound =
            Takes(Almost) ? Bound.Almost
            : Takes(JustOver) ? Bound.JustOver
            : Takes(Under) ? Bound.Under
            : Takes(Over) ? Bound.Over
            : Takes(About) ? Bound.About
            : Bound.None;
        Takes(LongAs);
        var (low, high, step) = (1d, 1d, 0d);
        var isCounted = false;
        if (Times().Match(rest) is { Success: true } times)
        {
            (low, high) = times.Groups["word"].Value is "half" or "half of" ? (0.5, 0.5) : (2, 2);
            rest = rest[times.Length..].TrimStart();
            isRough = isCounted = true;
        }
        else if (NumberText.Read(rest, 0) is { } first)
        {
            (low, high, step) = (first.Value, first.Value, first.Step);
            rest = rest[first.End..].TrimStart();
            isCounted = true;
            if (To().Match(rest) is { Success: true } to && NumberText.Read(rest, to.Length) is { } second)
            {
                high = second.Value;
                rest = rest[second.End..].TrimStart();
                isRough = true;
                if (high < low)
                    return Wrong(text, $"“{Number(low)} to {Number(high)}” runs backwards.");
            }
            if (rest.StartsWith("times ", StringComparison.Ordinal) || rest.StartsWith("× ", StringComparison.Ordinal))
                rest = rest[(rest.IndexOf(' ', StringComparison.Ordinal) + 1)..];
        }
        var named = Article().Replace(rest, "").Trim();
        // Plain numbers, units and series are readings.
        if (named.Length > 0 && NumberText.Read(named, 0) is not null)
            return null;
        // "My foot" is a foot of one's own, no unit.
        var isOwn = rest.StartsWith("my ", StringComparison.Ordinal) || rest.StartsWith("of my ", StringComparison.Ordinal);
        var isUnit = named.Length > 0 && !isOwn && MeasureUnit.Named(named) is not null;
        if (!isRough && (named.Length == 0 || isUnit))
            return null;
        if (!isCounted && (named.Length == 0 || isUnit))
            return isRough ? Wrong(text, "Say how much of what: “under 2 thumbs”, “half of it”.") : null;
        double factor,
            uncertainty = 0;
        if (isUnit)
        {
            var of = MeasureUnit.Named(named)!;
            if (of.Kind != QuantityKind.Length)
                return Wrong(text, $"A length isn’t measured in {of.Symbol}.");
            factor = of.Factor;
        }
        else if (named.Length == 0 && it is null)
        {
            if (unit is null)
                return Wrong(text, "Say in which unit: mm, cm, m, in.");
            factor = unit.Factor;
        }
        else if (named is "" or "it" or "this" or "that")
        {
            if (it is null)
                return Wrong(text, "Half of what? Choose the object that “it” is.");
            (factor, uncertainty, step) = (it.Length, it.Uncertainty, Math.Max(step, ObjectStep));
        }
        else if (Find(objects, named) is { } known)
            (factor, uncertainty, step) = (known.Length, known.Uncertainty, Math.Max(step, ObjectStep));
        else
            return isRough || isCounted && Word().IsMatch(named) || LooksNamed(text)
                ? Wrong(
                    text,
                    objects.Count == 0
                        ? $"“{named}” isn’t calibrated on this device: measure it once with a ruler, then it can be used."
                        : $"“{named}” isn’t calibrated on this device; known are {string.Join(", ", objects.Select(o => o.Name))}."
                )
                : null;
        // What has a bound is as wide as that says, at least a quarter of an object.
        if (bound != Bound.None)
            step = isUnit || named.Length == 0 && it is null ? 0 : ObjectStep;
        (low, high) = bound switch
        {
            Bound.Under => (0, high),
            Bound.Over => (low, OverUpTo * high),
            Bound.Almost => ((1 - Nearly) * low, high),
            Bound.JustOver => (low, (1 + Nearly) * high),
            Bound.About => ((1 - Nearly) * low, (1 + Nearly) * high),
            _ => (low, high),
        };
        var value = Math.Round((low + high) / 2 * factor, 9);
        if (!(value > 0) || value > ReadingText.LongestLength)
            return Wrong(text, "This is no length of a plant.");
        return new ReadingLine(
            [
                new Reading(
                    value,
                    text.Trim(),
                    Math.Round(Math.Max(high - low, step) * factor, 9),
                    Math.Round((low + high) / 2 * uncertainty, 9)
                ),
            ],
            []
        );
    }

    private enum Bound
    {
        None,
        Under,
        Over,
        Almost,
        JustOver,
        About,
    }

    private static bool LooksNamed(string text) => text.Contains("my ", StringComparison.OrdinalIgnoreCase);

    // By its whole name, its last word, and either in the plural.
    private static CalibratedObject? Find(IReadOnlyList<CalibratedObject> objects, string named)
    {
        static IEnumerable<string> Forms(string name)
        {
            yield return name;
            var last = name.Split(' ')[^1];
            if (last != name)
                yield return last;
        }
        var found = objects
            .Where(o =>
                Forms(o.Name.ToLowerInvariant()).Any(f => f == named || f + "s" == named || f + "es" == named || Plural(f) == named)
            )
            .ToList();
        return found.Count == 1 ? found[0] : null;
    }

    private static string Plural(string word) =>
        word switch
        {
            "foot" => "feet",
            _ => word.EndsWith('y') ? word[..^1] + "ies" : word,
        };

    private static ReadingLine Wrong(string text, string message) => new([], [new ReadingProblem(message, text.Length)]);

    private static string Number(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    [GeneratedRegex(@"\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Spaces();

    [GeneratedRegex(@"^(?:a |the )?(?<word>half of|half|twice|double)\b", RegexOptions.CultureInvariant)]
    private static partial Regex Times();

    [GeneratedRegex(@"^(?:to|or|–|-|—)\s*(?=[\d\p{L}½¼¾])", RegexOptions.CultureInvariant)]
    private static partial Regex To();

    [GeneratedRegex(@"^(?:of )?(?:my |the |a |an |our |one )?(?:own )?", RegexOptions.CultureInvariant)]
    private static partial Regex Article();

    [GeneratedRegex(@"^[\p{L}][\p{L} '’-]{2,}$", RegexOptions.CultureInvariant)]
    private static partial Regex Word();
}
