namespace Garten.Server.Hosting.Beyond;

/// <summary>A setting of where the server answers can't be used; the message says why, and what would do.</summary>
internal sealed class UnusableSettingException(string message, Exception? inner = null) : Exception(message, inner);
