using System.Collections;
using System.Collections.Concurrent;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Web.Http;

/// <summary>What a door says that takes any day there is.</summary>
public sealed class AnyDay;

/// <summary>
/// Looks through whatever a request brings, before anything works on it: texts, lists and numbers are within their bounds
/// (<see cref="Bounds"/>), nothing in a list is missing, and days lie within ten years where the door takes not any
/// (<see cref="AnyDay"/>).
/// </summary>
public sealed class BoundsFilter(TimeProvider clock) : IEndpointFilter
{
    private const int Deepest = 24, MostProblems = 20;

    private static readonly ConcurrentDictionary<Type, IReadOnlyList<Member>> Known = new();
    private static readonly ConcurrentDictionary<MethodInfo, IReadOnlyList<string?>> Names = new();

    /// <inheritdoc/>
    public ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        ArgumentNullException.ThrowIfNull(context);
        ArgumentNullException.ThrowIfNull(next);
        var door = context.HttpContext.GetEndpoint()?.Metadata;
        var look = new Look(door?.GetMetadata<AnyDay>() is null ? DateOnly.FromDateTime(clock.GetLocalNow().DateTime) : null);
        var method = door?.GetMetadata<MethodInfo>();
        var names = method is null ? [] : Names.GetOrAdd(method, NamesOf);
        for (var i = 0; i < context.Arguments.Count; i++)
        {
            if (i < names.Count && names[i] is { } name) look.At(context.Arguments[i], name, IsBody(context.Arguments[i]) ? "" : name, 0);
        }

        return look.Problems.Count > 0 ? ValueTask.FromResult<object?>(Answers.Problem(look.Problems)) : next(context);
    }

    // What comes out of the request: simple values, and what the JSON body became; the rest is the program's own.
    private static IReadOnlyList<string?> NamesOf(MethodInfo method) =>
        [.. method.GetParameters().Select(one => IsSimple(one.ParameterType) || IsRead(one.ParameterType) ? one.Name ?? "" : null)];

    private static bool IsBody(object? argument) => argument is not null && !IsSimple(argument.GetType());

    private static bool IsSimple(Type type) => (Nullable.GetUnderlyingType(type) ?? type) is var one
        && (one == typeof(string) || one == typeof(decimal) || one == typeof(DateOnly));

    // Records of this program that JSON can be read into; a store or a desk has no such members.
    private static bool IsRead(Type type) =>
        type is { IsClass: true, Namespace: not null } && type.GetMethod("<Clone>$") is not null
        && type.Namespace.StartsWith("LivelyTern.", StringComparison.Ordinal);

    private static IReadOnlyList<Member> MembersOf(Type type) =>
        [
            .. type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                .Where(one => one.CanWrite && one.GetIndexParameters().Length == 0 && one.GetCustomAttribute<JsonIgnoreAttribute>() is null)
                .Select(one => new Member(JsonNamingPolicy.CamelCase.ConvertName(one.Name), one, MayMiss(one))),
        ];

    // Whether a list may hold nothing in a place, as its declaration says. An aim's band that is sent as null is none.
    private static bool MayMiss(PropertyInfo property)
    {
        var isOfAim = property.DeclaringType == typeof(DayAim) || property.DeclaringType == typeof(OtherDay);
        if (isOfAim && string.Equals(property.Name, nameof(DayAim.Bands), StringComparison.Ordinal)) return true;
        var said = new NullabilityInfoContext().Create(property);
        var item = said.ElementType ?? said.GenericTypeArguments.LastOrDefault();
        return item is null || item.ReadState == NullabilityState.Nullable || item.WriteState == NullabilityState.Nullable;
    }

    private sealed record Member(string Name, PropertyInfo Property, bool MayMissItems);

    private sealed class Look(DateOnly? today)
    {
        public List<Problem> Problems { get; } = [];

        public void At(object? value, string name, string field, int depth, bool mayMissItems = true)
        {
            if (value is null || Problems.Count >= MostProblems) return;
            if (depth > Deepest)
            {
                Problems.Add(new("too-deep", field, "That is nested deeper than anything here."));
                return;
            }

            switch (value)
            {
                case string text: Letters(text, name, field); break;
                case decimal number: Add(Bounds.NumberOf(name).ProblemOf(number, field)); break;
                case DateOnly day when today is { } now: Add(KitchenDays.Refusal(day, now, field)); break;
                case DateTimeOffset moment when today is { } now:
                    Add(KitchenDays.Refusal(DateOnly.FromDateTime(moment.Date), now, field));
                    break;
                case Grams weight: Add(Bounds.NumberOfType(nameof(Grams))!.ProblemOf(weight.Value, field)); break;
                case Millilitres volume: Add(Bounds.NumberOfType(nameof(Millilitres))!.ProblemOf(volume.Value, field)); break;
                case IDictionary table: Table(table, name, field, depth, mayMissItems); break;
                case IEnumerable list: List(list, name, field, depth, mayMissItems); break;
                default: Thing(value, field, depth); break;
            }
        }

        private void Add(Problem? problem)
        {
            if (problem is not null) Problems.Add(problem);
        }

        private void Letters(string text, string name, string field)
        {
            var most = Bounds.LettersOf(name);
            if (text.Length > most) Problems.Add(new("text-long", field, $"That holds up to {most} letters."));
        }

        private void Table(IDictionary table, string name, string field, int depth, bool mayMiss)
        {
            if (IsTooLong(table.Count, name, field)) return;
            foreach (DictionaryEntry one in table)
            {
                var key = Convert.ToString(one.Key, CultureInfo.InvariantCulture) ?? "";
                if (one.Key is string) Letters(key, "", field);
                if (one.Value is not null) At(one.Value, name, field, depth + 1);
                else if (!mayMiss) Missing(field);
            }
        }

        private void List(IEnumerable list, string name, string field, int depth, bool mayMiss)
        {
            if (list is ICollection { Count: var count } && IsTooLong(count, name, field)) return;
            var i = 0;
            foreach (var one in list)
            {
                var at = string.Create(CultureInfo.InvariantCulture, $"{field}[{i++}]");
                if (one is not null) At(one, name, at, depth + 1);
                else if (!mayMiss) Missing(at);
            }
        }

        private bool IsTooLong(int count, string name, string field)
        {
            var most = Bounds.ThingsIn(name);
            if (count > most) Problems.Add(new("list-long", field, $"That holds up to {most} things."));
            return count > most;
        }

        private void Missing(string field) =>
            Problems.Add(new("member-missing", field, $"Nothing stands at {field}: leave it out or fill it in."));

        private void Thing(object value, string field, int depth)
        {
            var type = value.GetType();
            if (type.Namespace?.StartsWith("LivelyTern.", StringComparison.Ordinal) != true || type.IsEnum) return;
            foreach (var member in Known.GetOrAdd(type, MembersOf))
            {
                var at = field.Length == 0 ? member.Name : $"{field}.{member.Name}";
                At(member.Property.GetValue(value), member.Name, at, depth + 1, member.MayMissItems);
            }
        }
    }
}
