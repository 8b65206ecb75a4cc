using System.Collections.Concurrent;
using System.Reflection;
using Garten.Core.Contracts;

namespace Garten.Server.Commands;

/// <summary>What a command names by its id, besides itself and the persons in it.</summary>
internal static class CommandIds
{
    private static readonly ConcurrentDictionary<Type, PropertyInfo[]> Known = new();

    public static IEnumerable<Guid> Of(Command command) =>
        command is EraseCommand
            ? []
            : Known
                .GetOrAdd(command.GetType(), type =>
                    [
                        .. type.GetProperties()
                            .Where(p =>
                                p.Name != nameof(Command.Id) && (p.PropertyType == typeof(Guid) || p.PropertyType == typeof(Guid?))
                            ),
                    ]
                )
                .Select(p => p.GetValue(command))
                .OfType<Guid>();
}
