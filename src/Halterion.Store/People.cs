using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core;
using Halterion.Core.People;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>People who belong together.</summary>
/// <param name="Together">They stay in one group of a rotation; else they are those who usually come.</param>
public sealed record Circle(Guid Id, string Name, bool Together, ImmutableArray<PersonId> People);

/// <summary>The roster.</summary>
public sealed class People(Database database, TimeProvider clock)
{
    private const int Format = 1;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    public ImmutableArray<Person> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT id, name, details FROM person ORDER BY name COLLATE NOCASE, id", [], Read)];
    }

    public Person? Find(PersonId id)
    {
        using var connection = database.Connect();
        return connection.Query("SELECT id, name, details FROM person WHERE id = @id", [("@id", id.Value)], Read).SingleOrDefault();
    }

    /// <summary>A new person; the id of the one given is not kept.</summary>
    public Person Add(Person details)
    {
        using var connection = database.Connect();
        return Add(connection, details);
    }

    /// <summary>Adds and changes several people, all or none.</summary>
    public void Take(IEnumerable<Person> fresh, IEnumerable<Person> changed)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        foreach (var person in fresh)
        {
            Add(connection, person);
        }

        foreach (var person in changed)
        {
            Change(connection, person);
        }

        transaction.Commit();
    }

    public bool Change(Person person)
    {
        using var connection = database.Connect();
        return Change(connection, person);
    }

    /// <summary>
    /// Erases a person and all that is held on them: from the data, also where their full name stands in old revisions, led
    /// scripts and notes, from its free pages and log, and from every copy. How many came to a class stays, without a name.
    /// </summary>
    public bool Erase(PersonId id)
    {
        using (var connection = database.Connect())
        using (var transaction = connection.BeginTransaction())
        {
            if (!Erase(connection, id))
            {
                return false;
            }

            transaction.Commit();
        }

        database.Copies.Erase(id);
        database.Scrub();
        return true;
    }

    /// <summary>Takes a person out of one file of data, this one or a copy.</summary>
    internal static bool Erase(SqliteConnection connection, PersonId id)
    {
        var name = connection.Scalar("SELECT name FROM person WHERE id = @id", [("@id", id.Value)]) as string;
        if (name is null)
        {
            return false;
        }

        // A copy of an older schema has no such column; its rows go all the same.
        if (Has(connection, "log", "erased"))
        {
            connection.Run("UPDATE log SET erased = erased + 1 WHERE session_id IN (SELECT session_id FROM log_row WHERE person_id = @id AND came = 1)", [("@id", id.Value)]);
        }

        // What was noted of them while leading goes; the tap itself stays in the row of taps.
        if (Has(connection, "lead_command", "payload"))
        {
            connection.Run("UPDATE lead_command SET payload = '{}' WHERE instr(payload, @id) > 0", [("@id", id.Value)]);
        }

        if (Has(connection, "desk_guest", "person_id"))
        {
            connection.Run("DELETE FROM desk_guest WHERE person_id = @id OR name = @name", [("@id", id.Value), ("@name", name)]);
        }

        connection.Run("DELETE FROM person WHERE id = @id", [("@id", id.Value)]);
        // A first name alone may be anybody's, or a word.
        if (name.Contains(' ', StringComparison.Ordinal))
        {
            foreach (var (table, column) in ((string, string)[])[("revision", "plan"), ("lead", "script"), ("log", "note"),
                ("log_row", "note"), ("template", "block"), ("session_waiver", "reason"), ("lead_command", "payload")])
            {
                if (!Has(connection, table, column))
                {
                    continue;
                }

                foreach (var written in new[] { name, JsonEncodedText.Encode(name).ToString() }.Distinct())
                {
                    connection.Run($"UPDATE {table} SET {column} = replace({column}, @name, 'someone') WHERE instr({column}, @name) > 0", [("@name", written)]);
                }
            }
        }

        return true;
    }

    public ImmutableArray<Circle> Circles()
    {
        using var connection = database.Connect();
        var members = connection.Query(
            "SELECT c.circle_id, c.person_id FROM circle_person c JOIN person p ON p.id = c.person_id ORDER BY p.name COLLATE NOCASE, p.id",
            [],
            r => (Circle: Guid.Parse(r.GetString(0)), Person: new PersonId(r.GetString(1)))).ToLookup(m => m.Circle, m => m.Person);
        return
        [
            .. connection.Query(
                "SELECT id, name, together FROM circle ORDER BY name COLLATE NOCASE, id",
                [],
                r => new Circle(Guid.Parse(r.GetString(0)), r.GetString(1), r.GetBoolean(2), [.. members[Guid.Parse(r.GetString(0))]])),
        ];
    }

    /// <summary>Keeps a circle, new or changed.</summary>
    public void Keep(Circle circle)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        connection.Run(
            "INSERT INTO circle (id, name, together) VALUES (@id, @name, @together) ON CONFLICT (id) DO UPDATE SET name = excluded.name, together = excluded.together",
            [("@id", circle.Id), ("@name", circle.Name), ("@together", circle.Together)]);
        connection.Run("DELETE FROM circle_person WHERE circle_id = @id", [("@id", circle.Id)]);
        foreach (var person in circle.People.Distinct())
        {
            connection.Run("INSERT INTO circle_person (circle_id, person_id) SELECT @id, id FROM person WHERE id = @person",
                [("@id", circle.Id), ("@person", person.Value)]);
        }

        transaction.Commit();
    }

    public bool Part(Guid circle)
    {
        using var connection = database.Connect();
        return connection.Run("DELETE FROM circle WHERE id = @id", [("@id", circle)]) == 1;
    }

    private Person Add(SqliteConnection connection, Person details)
    {
        var person = details with { Id = new PersonId(Guid.CreateVersion7().ToString()) };
        connection.Run(
            "INSERT INTO person (id, name, created_at, format, details) VALUES (@id, @name, @now, @format, @details)",
            [("@id", person.Id.Value), ("@name", person.Name), ("@now", clock.GetUtcNow()), ("@format", Format), ("@details", Details(person))]);
        return person;
    }

    private static bool Change(SqliteConnection connection, Person person) => connection.Run(
        "UPDATE person SET name = @name, format = @format, details = @details WHERE id = @id",
        [("@id", person.Id.Value), ("@name", person.Name), ("@format", Format), ("@details", Details(person))]) == 1;

    private static bool Has(SqliteConnection connection, string table, string column) =>
        connection.Scalar("SELECT 1 FROM pragma_table_info(@table) WHERE name = @column", [("@table", table), ("@column", column)]) is not null;

    private static string Details(Person person)
    {
        var details = JsonSerializer.SerializeToNode(person, Json)!.AsObject();
        details.Remove("id");
        details.Remove("name");
        details.Remove("called");
        return details.ToJsonString();
    }

    private static Person Read(SqliteDataReader r)
    {
        var details = JsonNode.Parse(r.GetString(2))!.AsObject();
        details["id"] = r.GetString(0);
        details["name"] = r.GetString(1);
        return details.Deserialize<Person>(Json)!;
    }
}
