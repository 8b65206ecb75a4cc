using Garten.Core.Contracts;

namespace Garten.Server.Hosting;

/// <summary>Files that are written out whole before any of them leaves: what fails halfway isn't taken for one, and the database is done
/// with when the reader begins.</summary>
internal static class WholeFiles
{
    private const int Buffer = 1 << 16;

    /// <summary>Sends a file.</summary>
    /// <param name="type">Its media type.</param>
    /// <param name="name">The name that it is kept under.</param>
    /// <param name="write">Writes it; answers what is wrong instead, where it can't be.</param>
    public static async Task<IResult> SendAsync(string type, string name, Func<Stream, Task<ProblemReport?>> write)
    {
        var file = new FileStream(
            Path.Combine(Path.GetTempPath(), Path.GetRandomFileName()),
            FileMode.CreateNew,
            FileAccess.ReadWrite,
            FileShare.None,
            Buffer,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
        try
        {
            if (await write(file) is { } problem)
            {
                await file.DisposeAsync();
                return Problems.Result(problem);
            }
            file.Position = 0;
            return Results.Stream(file, type, name);
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }
}
