namespace Garten.Core.Botany;

/// <summary>Something wrong with a vocabulary.</summary>
/// <param name="Place">Where: "part petiole", "quality colour, state red".</param>
/// <param name="Message">What, as a sentence.</param>
public sealed record VocabularyProblem(string Place, string Message);

/// <summary>Finds what is wrong with a vocabulary. Nothing throws.</summary>
public static class VocabularyCheck
{
    /// <summary>No quality has more states: nobody would find one among them.</summary>
    public const int MostStates = 200;

    /// <summary>A vocabulary has no more parts.</summary>
    public const int MostParts = 5_000;

    /// <summary>Characters of a picture as a data address: some 45 kB of PNG or JPEG, enough for a drawing of 300 × 300.</summary>
    public const int LongestPicture = 60_000;

    private static readonly string[] PictureKinds = ["data:image/png;base64,", "data:image/jpeg;base64,"];

    /// <summary>What is wrong with a picture; null where it can be kept.</summary>
    public static string? PictureProblem(string picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        if (picture.Length > LongestPicture)
            return $"The picture is too large: {picture.Length / 1000} kB where {LongestPicture / 1000} are the most. Make it smaller.";
        if (Array.Find(PictureKinds, k => picture.StartsWith(k, StringComparison.Ordinal)) is not { } kind)
            return "The picture is neither PNG nor JPEG.";
        Span<byte> bytes = new byte[picture.Length];
        return Convert.TryFromBase64Chars(picture.AsSpan(kind.Length), bytes, out _) ? null : "The picture can’t be read.";
    }

    /// <summary>A vocabulary has no more qualities.</summary>
    public const int MostQualities = 1_000;

    /// <summary>What is wrong, in the order of the vocabulary; empty where it is sound.</summary>
    public static IReadOnlyList<VocabularyProblem> Problems(Vocabulary vocabulary)
    {
        ArgumentNullException.ThrowIfNull(vocabulary);
        var problems = new List<VocabularyProblem>();
        void Wrong(string place, string message) => problems.Add(new(place, message));
        if (vocabulary.Parts.Count > MostParts)
            Wrong("parts", $"There are {vocabulary.Parts.Count} parts; {MostParts} are the most.");
        if (vocabulary.Qualities.Count > MostQualities)
            Wrong("qualities", $"There are {vocabulary.Qualities.Count} qualities; {MostQualities} are the most.");
        Parts(vocabulary, Wrong);
        Qualities(vocabulary, Wrong);
        if (problems.Count > 0)
            return problems;
        Sayings(vocabulary, Wrong);
        return problems;
    }

    private static void Parts(Vocabulary vocabulary, Action<string, string> wrong)
    {
        var byId = new Dictionary<string, Part>(StringComparer.Ordinal);
        var nouns = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (var part in vocabulary.Parts)
        {
            var place = $"part {part.Id}";
            if (!CharacterId.IsName(part.Id))
                wrong(place, $"“{part.Id}” is no id: small letters, digits and single hyphens.");
            if (!byId.TryAdd(part.Id, part))
                wrong(place, $"There are two parts “{part.Id}”.");
            if (part.Nouns.Count == 0 || part.Nouns.Any(string.IsNullOrWhiteSpace))
                wrong(place, "A part needs a noun.");
            if (string.IsNullOrWhiteSpace(part.Definition))
                wrong(place, "Say in a sentence what the part is.");
            foreach (var noun in part.ReplacedBy is null ? part.Nouns : [])
            {
                if (!nouns.TryAdd(noun, part.Id) && nouns[noun] != part.Id)
                    wrong(place, $"“{noun}” is a word for {nouns[noun]} already.");
            }
        }
        foreach (var part in vocabulary.Parts)
        {
            var place = $"part {part.Id}";
            if (part.Parent.Length > 0 && !byId.ContainsKey(part.Parent))
                wrong(place, $"There is no part “{part.Parent}” that it could be a part of.");
            foreach (var owner in part.Owners.Where(o => o != Part.AnyOwner && !byId.ContainsKey(o)))
                wrong(place, $"There is no part “{owner}” that could have it.");
            if (part.ReplacedBy is { } next && !byId.ContainsKey(next))
                wrong(place, $"There is no part “{next}” that it could be merged into.");
            if (EndsInItself(part.Id, id => byId.GetValueOrDefault(id)?.ReplacedBy))
                wrong(place, $"{part.Id} would be merged into itself.");
            var met = new HashSet<string>(StringComparer.Ordinal);
            for (var at = part; at is not null; at = byId.GetValueOrDefault(at.Parent))
            {
                if (met.Add(at.Id))
                    continue;
                wrong(place, $"{part.Name} would be a part of itself.");
                break;
            }
        }
    }

    // Whether merging goes round in a circle.
    private static bool EndsInItself(string id, Func<string, string?> next)
    {
        var met = new HashSet<string>(StringComparer.Ordinal) { id };
        for (var at = next(id); at is not null; at = next(at))
        {
            if (!met.Add(at))
                return true;
        }
        return false;
    }

    private static void Qualities(Vocabulary vocabulary, Action<string, string> wrong)
    {
        var ids = new HashSet<string>(StringComparer.Ordinal);
        foreach (var quality in vocabulary.Qualities)
        {
            var place = $"quality {quality.Id}";
            if (!CharacterId.IsName(quality.Id))
                wrong(place, $"“{quality.Id}” is no id: small letters, digits and single hyphens.");
            if (!ids.Add(quality.Id))
                wrong(place, $"There are two qualities “{quality.Id}”.");
            if (string.IsNullOrWhiteSpace(quality.Definition) || string.IsNullOrWhiteSpace(quality.Trap))
                wrong(place, "A quality needs a definition, and what it is easily misjudged by.");
            if (!(quality.Reliability is > 0 and < 1) || !(quality.Detection is > 0 and <= 1))
                wrong(place, "Reliability and detection are shares: above 0, and the first below 1.");
            if (quality.IsQuantity != (quality.States.Count == 0))
                wrong(place, quality.IsQuantity ? "What is measured has no states." : "A quality that isn't measured needs states.");
            if (EndsInItself(quality.Id, id => vocabulary.Qualities.FirstOrDefault(q => q.Id == id)?.ReplacedBy))
                wrong(place, $"{quality.Name} would be merged into itself.");
            if (quality.ReplacedBy is { } next && vocabulary.Qualities.All(q => q.Id != next))
                wrong(place, $"There is no quality “{next}” that it could be merged into.");
            if (quality.States.Count > MostStates)
            {
                wrong(place, $"It has {quality.States.Count} states; {MostStates} are the most. Divide it into several qualities.");
                continue;
            }
            States(quality, wrong);
        }
    }

    private static void States(Quality quality, Action<string, string> wrong)
    {
        var terms = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        var ids = new HashSet<string>(StringComparer.Ordinal);
        foreach (var state in quality.States)
        {
            var place = $"quality {quality.Id}, state {state.Id}";
            if (!CharacterId.IsName(state.Id))
                wrong(place, $"“{state.Id}” is no id: small letters, digits and single hyphens.");
            if (!ids.Add(state.Id))
                wrong(place, $"There are two states “{state.Id}”.");
            if (string.IsNullOrWhiteSpace(state.Name) || string.IsNullOrWhiteSpace(state.Definition))
                wrong(place, "A state needs a name and a definition.");
            if (state.Picture is { } picture && PictureProblem(picture) is { } wrongPicture)
                wrong(place, wrongPicture);
            foreach (var term in state.ReplacedBy is null ? state.Terms : [])
            {
                if (!terms.TryAdd(term, state.Id) && terms[term] != state.Id)
                    wrong(place, $"“{term}” is a word for {terms[term]} already.");
            }
        }
        foreach (var state in quality.States)
        {
            var place = $"quality {quality.Id}, state {state.Id}";
            if (state.Broader.Length > 0 && quality.Find(state.Broader) is null)
                wrong(place, $"There is no state “{state.Broader}” that it could be a kind of.");
            if (state.Near.Length > 0 && quality.Find(state.Near) is null)
                wrong(place, $"There is no state “{state.Near}” that it could be taken for.");
            if (EndsInItself(state.Id, id => quality.Find(id)?.ReplacedBy))
                wrong(place, $"{state.Name} would be merged into itself.");
            if (state.ReplacedBy is { } next && quality.Find(next) is null)
                wrong(place, $"There is no state “{next}” that it could be merged into.");
            var met = new HashSet<string>(StringComparer.Ordinal);
            for (var at = state; at is not null; at = at.Broader.Length > 0 ? quality.Find(at.Broader) : null)
            {
                if (met.Add(at.Id))
                    continue;
                wrong(place, $"{state.Name} would be a kind of itself.");
                break;
            }
        }
    }

    // What is said has to be sayable, and nothing may say its own opposite.
    private static void Sayings(Vocabulary vocabulary, Action<string, string> wrong)
    {
        var botany = new BotanyIndex(vocabulary);
        string? Unknown(string quality, string state) =>
            botany.Quality(quality) is not { } it ? $"There is no quality “{quality}”."
            : state.Length > 0 && it.Find(state) is null ? $"{it.Name} has no state “{state}”."
            : null;
        foreach (var implication in vocabulary.Implications)
        {
            var place = $"implication of {implication.Quality}, {implication.State}";
            var own = implication.State == Implication.EachState ? "" : implication.State;
            if ((Unknown(implication.Quality, own) ?? Unknown(implication.Implies, implication.Implied)) is { } problem)
                wrong(place, problem);
        }
        foreach (var meaning in vocabulary.Meanings)
        {
            var place = $"meaning of {meaning.Character}, {meaning.State}";
            foreach (var says in meaning.Says)
            {
                if (Bearing.Read(says) is not { } read || botany.Compose(read.Character.ToString()) is not { } character)
                    wrong(place, $"“{says}” is no part with a quality.");
                else if (read.State.Length > 0 && character.IndexOf(read.State) < 0)
                    wrong(place, $"{character.Name} has no state “{read.State}”.");
            }
        }
        foreach (var quality in vocabulary.Qualities)
        {
            foreach (var state in quality.States)
            {
                var saying = new Saying(new CharacterId("", BotanyIndex.WholePlant, quality.Id, ""), state.Id);
                var all = botany.Bearing.Closure(saying);
                if (all.Any(a => all.Any(b => botany.Bearing.Of(a, b) == Bears.Excludes)))
                    wrong($"quality {quality.Id}, state {state.Id}", $"{state.Name} would say its own opposite.");
            }
        }
    }
}
