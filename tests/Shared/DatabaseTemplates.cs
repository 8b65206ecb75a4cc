using System.Collections.Concurrent;
using Npgsql;

namespace Garten.Testing;

/// <summary>Databases that are filled once in a run and copied for each who needs one like it: copying takes a tenth of a second.</summary>
public static class DatabaseTemplates
{
    private static readonly ConcurrentDictionary<string, Lazy<Task<TestDatabase>>> Made = new(StringComparer.Ordinal);

    // Of one database one copy is made at a time.
    private static readonly SemaphoreSlim Turn = new(1, 1);

    /// <summary>A copy of a database.</summary>
    /// <param name="of">What is in it.</param>
    /// <param name="fill">Fills an empty one, given its connection string, and leaves no connection to it.</param>
    public static async Task<TestDatabase> CopyAsync(string of, Func<string, Task> fill)
    {
        var template = await Made.GetOrAdd(of, _ => new Lazy<Task<TestDatabase>>(() => MakeAsync(fill))).Value;
        await Turn.WaitAsync();
        try
        {
            return await TestDatabase.CreateAsync(template);
        }
        finally
        {
            Turn.Release();
        }
    }

    private static async Task<TestDatabase> MakeAsync(Func<string, Task> fill)
    {
        var made = await TestDatabase.CreateAsync();
        // Nobody may be connected to what is copied.
        await fill(new NpgsqlConnectionStringBuilder(made.ConnectionString) { Pooling = false }.ConnectionString);
        return made;
    }
}
