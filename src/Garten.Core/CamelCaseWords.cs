using System.Text.Json;
using System.Text.Json.Serialization;

namespace Garten.Core;

/// <summary>An enumeration as words in camel case; a number isn't read as one. It stands at the enumeration itself: of the eighty that
/// there are a call makes only those that it speaks of, where a list of all was made at an interpreted core's first call.</summary>
public sealed class CamelCaseWords<T>() : JsonStringEnumConverter<T>(JsonNamingPolicy.CamelCase, allowIntegerValues: false)
    where T : struct, Enum;
