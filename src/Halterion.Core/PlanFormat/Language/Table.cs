using System.Text.Json.Nodes;

namespace Halterion.Core.PlanFormat;

/// <summary>Where nothing around a thing says which fields it takes.</summary>
internal readonly record struct Anywhere;

/// <summary>To which things a field belongs, and why not to another.</summary>
/// <param name="Takes">Whether this thing at this place takes the field.</param>
/// <param name="Why">What is said of a field that stands where it does not belong.</param>
internal sealed record Belongs<TOwner, TPlace>(Func<TOwner, TPlace, bool> Takes, Func<TOwner, TPlace, string> Why)
{
    public Belongs(Func<TOwner, TPlace, bool> takes, string why) : this(takes, (_, _) => why)
    {
    }
}

/// <summary>One field of a thing.</summary>
internal sealed record Field<TOwner, TPlace>(
    string Name,
    Func<JsonObject> Schema,
    Func<Context, Fields, TOwner, TPlace, TOwner> Read,
    Func<TOwner, JsonNode?> Write)
{
    public bool Required
    {
        get;
        init => (field, AlsoAbsent) = (value, AlsoAbsent || value);
    }

    /// <summary>Read also where it is absent: it is missed, or something stands for it.</summary>
    public bool AlsoAbsent { get; init; }

    /// <summary>Read after all others, because they say how.</summary>
    public bool Last { get; init; }

    public Belongs<TOwner, TPlace>? Only { get; init; }
}

/// <summary>
/// The fields of one kind of thing of the plan language, said once: reader, writer and published schema follow from it. Fields are
/// written, and but for the last ones read, in the order in which they are added.
/// </summary>
/// <param name="what">What it is called: "a block".</param>
/// <param name="about">What it is, for the published schema.</param>
internal abstract class Table<TOwner, TPlace>(string what, string? about)
{
    private readonly List<Field<TOwner, TPlace>> fields = [];
    private Field<TOwner, TPlace>[]? inReadingOrder;

    protected const bool Required = true;

    public IReadOnlyList<Field<TOwner, TPlace>> All => fields;

    /// <param name="blank">The thing as it is where the file says nothing.</param>
    /// <param name="sure">What it belongs to is known; else no field is refused.</param>
    public TOwner Read(Context context, Fields read, TOwner blank, TPlace place, bool sure = true)
    {
        var owner = blank;
        foreach (var field in inReadingOrder ??= [.. fields.OrderBy(f => f.Last)])
        {
            if (!field.AlsoAbsent && !read.Has(field.Name))
            {
                continue;
            }

            if (sure && field.Only is { } only && !only.Takes(owner, place))
            {
                read.Refuse(only.Why(owner, place), field.Name);
            }
            else
            {
                owner = field.Read(context, read, owner, place);
            }
        }

        read.Close(what);
        return owner;
    }

    /// <summary>What is as the language has it anyway is left out.</summary>
    public JsonObject Write(TOwner owner)
    {
        var written = new JsonObject();
        WriteInto(written, owner);
        return written;
    }

    public void WriteInto(JsonObject written, TOwner owner)
    {
        foreach (var field in fields)
        {
            if (field.Write(owner) is { } value)
            {
                written[field.Name] = value;
            }
        }
    }

    public JsonObject Schema() => Schemas.Object(
        about, fields.Select(f => (f.Name, f.Schema())), [.. fields.Where(f => f.Required).Select(f => f.Name)]);

    /// <param name="get">What is written; null where the field is left out.</param>
    protected void Add<T>(
        string name, Holds<T> holds, Func<TOwner, T?> get, Func<TOwner, T, TOwner> set, bool required = false,
        Belongs<TOwner, TPlace>? only = null, string? about = null) where T : struct =>
        Add(name, holds, set, o => get(o) is { } value ? holds.Write(value) : null, required, only, about);

    /// <inheritdoc cref="Add{T}(string, Holds{T}, Func{TOwner, T?}, Func{TOwner, T, TOwner}, bool, Belongs{TOwner, TPlace}?, string?)"/>
    protected void Add<T>(
        string name, Holds<T> holds, Func<TOwner, T?> get, Func<TOwner, T, TOwner> set, bool required = false,
        Belongs<TOwner, TPlace>? only = null, string? about = null) where T : class =>
        Add(name, holds, set, o => get(o) is { } value ? holds.Write(value) : null, required, only, about);

    private void Add<T>(
        string name, Holds<T> holds, Func<TOwner, T, TOwner> set, Func<TOwner, JsonNode?> write, bool required,
        Belongs<TOwner, TPlace>? only, string? about) => Add(new Field<TOwner, TPlace>(
            name,
            () => Schemas.About(holds.Schema(), about),
            (context, fields, owner, _) =>
            {
                if (fields.Take(name) is not { } value)
                {
                    if (required)
                    {
                        fields.Missing<int>(name, holds.Right);
                    }

                    return owner;
                }

                return holds.TryRead(context, fields, value, name, null, out var read) ? set(owner, read) : owner;
            },
            write)
        { Required = required, Only = only });

    protected void Add(Field<TOwner, TPlace> field) => fields.Add(field);

    /// <summary>Takes over the fields of a thing that stands in this one without a name.</summary>
    protected void AddAll<TInner>(
        Table<TInner, Anywhere> inner, Func<TOwner, TInner> get, Func<TOwner, TInner, TOwner> set,
        Func<string, Belongs<TOwner, TPlace>?> only) where TInner : class
    {
        foreach (var field in inner.All)
        {
            Add(new Field<TOwner, TPlace>(
                field.Name,
                field.Schema,
                (context, fields, owner, _) =>
                {
                    var before = get(owner);
                    var after = field.Read(context, fields, before, default);
                    return ReferenceEquals(before, after) ? owner : set(owner, after);
                },
                owner => field.Write(get(owner)))
            { Only = only(field.Name) });
        }
    }

    protected static T? Unless<T>(T usual, T value) where T : struct => value.Equals(usual) ? null : value;

    protected static string? Unless(string usual, string value) => value == usual ? null : value;

    protected static bool? OnlyTrue(bool value) => value ? true : null;
}

/// <summary>The fields of a thing that takes them wherever it stands.</summary>
internal abstract class Table<TOwner>(string what, string? about) : Table<TOwner, Anywhere>(what, about)
{
    public TOwner Read(Context context, Fields read, TOwner blank) => Read(context, read, blank, default);
}
