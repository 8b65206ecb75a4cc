namespace Garten.Testing;

/// <summary>Where the repository lies.</summary>
internal static class Repository
{
    public static string Root { get; } = Find();

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Garten.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new InvalidOperationException("This runs outside the repository.");
    }
}
