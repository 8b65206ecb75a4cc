namespace Garten.Benchmarks;

/// <summary>Words that nobody uses, for floras of any size.</summary>
internal static class InventedWord
{
    private const string Consonants = "vlrmnstd";
    private const string Vowels = "aeiou";
    private const int MostMore = 6;

    /// <summary>A word of at least so many letters.</summary>
    public static string Of(Random random, int least) =>
        string.Concat(
            Enumerable
                .Range(0, least + random.Next(MostMore))
                .Select(i => i % 2 == 0 ? Consonants[random.Next(Consonants.Length)] : Vowels[random.Next(Vowels.Length)])
        );
}
