using System.Reflection;
using System.Text.Json.Serialization;
using Garten.Core.Contracts;

namespace Garten.Server.Commands;

/// <summary>Finds the handler of a command by its type.</summary>
internal sealed class CommandHandlers
{
    private readonly Dictionary<Type, Handler> _handlers = [];
    private readonly Dictionary<Type, string> _kinds = typeof(Command)
        .GetCustomAttributes<JsonDerivedTypeAttribute>()
        .ToDictionary(a => a.DerivedType, a => (string)a.TypeDiscriminator!);

    /// <summary>Takes the handlers of all kinds of commands out of the services.</summary>
    /// <exception cref="InvalidOperationException">A kind of command has no handler.</exception>
    public CommandHandlers(IServiceProvider services)
    {
        foreach (var kind in _kinds.Keys)
            _handlers[kind] = (Handler)
                Activator.CreateInstance(
                    typeof(Handler<>).MakeGenericType(kind),
                    services.GetRequiredService(typeof(ICommandHandler<>).MakeGenericType(kind))
                )!;
    }

    /// <summary>Registers every handler of this assembly.</summary>
    public static void Add(IServiceCollection services)
    {
        foreach (var type in typeof(CommandHandlers).Assembly.GetTypes().Where(t => t is { IsClass: true, IsAbstract: false }))
        {
            foreach (
                var role in type.GetInterfaces().Where(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(ICommandHandler<>))
            )
                services.AddSingleton(role, type);
        }
        services.AddSingleton<CommandHandlers>();
    }

    /// <summary>The name by which a kind of command goes over the wire and is kept.</summary>
    public string KindOf(Command command) => _kinds.GetValueOrDefault(command.GetType(), "");

    /// <summary>What takes turns on it.</summary>
    public IEnumerable<string> LocksOf(Command command) =>
        _handlers.TryGetValue(command.GetType(), out var handler) ? handler.LocksOf(command) : [];

    /// <summary>What it changes.</summary>
    public IEnumerable<string> AboutOf(Command command) =>
        _handlers.TryGetValue(command.GetType(), out var handler) ? handler.AboutOf(command) : [];

    /// <summary>Carries out a command by the handler of its kind.</summary>
    public Task<CommandResult> HandleAsync(Command command, CommandContext context, CancellationToken stop) =>
        _handlers.TryGetValue(command.GetType(), out var handler)
            ? handler.HandleAsync(command, context, stop)
            : throw Refusal.Of(
                422,
                "command.kind",
                "This kind of command isn't known.",
                "See the API's description for the kinds of commands.",
                "kind"
            );

    private abstract class Handler
    {
        public abstract IEnumerable<string> LocksOf(Command command);

        public abstract IEnumerable<string> AboutOf(Command command);

        public abstract Task<CommandResult> HandleAsync(Command command, CommandContext context, CancellationToken stop);
    }

    private sealed class Handler<T>(ICommandHandler<T> handler) : Handler
        where T : Command
    {
        public override IEnumerable<string> LocksOf(Command command) => handler.LocksOf((T)command);

        public override IEnumerable<string> AboutOf(Command command) => handler.AboutOf((T)command);

        public override Task<CommandResult> HandleAsync(Command command, CommandContext context, CancellationToken stop) =>
            handler.HandleAsync((T)command, context, stop);
    }
}
