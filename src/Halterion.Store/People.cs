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
/// <param name="Revision">Counts its changes; 0: not kept yet.</param>
public sealed record Circle(Guid Id, string Name, bool Together, ImmutableArray<PersonId> People, int Revision = 0);

/// <summary>The roster.</summary>
public sealed class People(Database database, TimeProvider clock)
{
    private const int Format = 1;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    private static readonly string Selected = $"SELECT id, name, details, {Documents.Revision("'person:' || id")} FROM person";

    public ImmutableArray<Person> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query($"{Selected} ORDER BY name COLLATE NOCASE, id", [], Read)];
    }

    public Person? Find(PersonId id)
    {
        using var connection = database.Connect();
        return connection.Query($"{Selected} WHERE id = @id", [("@id", id.Value)], Read).SingleOrDefault();
    }

    /// <summary>A new person; the id of the one given is not kept.</summary>
    /// <param name="change">The id that they get, so that one who is sent twice is added once.</param>
    public Person Add(Person details, Guid? change = null)
    {
        var id = new PersonId((change ?? Guid.CreateVersion7()).ToString());
        database.Save(Name(id), new Basis(0, change), c => Has(c, id), c => Insert(c, details with { Id = id }));
        return Find(id)!;
    }

    /// <summary>Adds and changes several people, all or none.</summary>
    public void Take(IEnumerable<Person> fresh, IEnumerable<Person> changed)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        foreach (var person in fresh)
        {
            Insert(connection, person with { Id = new PersonId(Guid.CreateVersion7().ToString()) });
        }

        foreach (var person in changed)
        {
            Update(connection, person);
            Documents.Bump(connection, Name(person.Id));
        }

        transaction.Commit();
    }

    public Saved Change(Person person, Basis basis) =>
        database.Save(Name(person.Id), basis, c => Has(c, person.Id), c => Update(c, person));

    /// <summary>
    /// Erases a person and all that is held on them: from the data, also where their name stands in what others wrote, in old revisions,
    /// led scripts and notes, from its free pages and log, from every copy and from lists of the desk that were not read yet. How many
    /// came to a class stays, without a name.
    /// </summary>
    public bool Erase(PersonId id, NamesToErase names)
    {
        using (var connection = database.Connect())
        using (var transaction = connection.BeginTransaction())
        {
            if (!Erasing.From(connection, id, names))
            {
                return false;
            }

            transaction.Commit();
        }

        database.Copies.Erase(id, names);
        Erasing.FromLists(DeskFolder.In(database.Folder), names);
        database.Scrub();
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
                $"SELECT id, name, together, {Documents.Revision("'circle:' || id")} FROM circle ORDER BY name COLLATE NOCASE, id",
                [],
                r => new Circle(
                    Guid.Parse(r.GetString(0)), r.GetString(1), r.GetBoolean(2), [.. members[Guid.Parse(r.GetString(0))]], r.GetInt32(3))),
        ];
    }

    /// <summary>Keeps a circle, new or changed.</summary>
    public Saved Keep(Circle circle, Basis basis) => database.Save(
        Name(circle.Id),
        basis,
        c => c.Scalar("SELECT 1 FROM circle WHERE id = @id", [("@id", circle.Id)]) is not null,
        c => Write(c, circle));

    private static void Write(SqliteConnection connection, Circle circle)
    {
        connection.Run(
            "INSERT INTO circle (id, name, together) VALUES (@id, @name, @together) ON CONFLICT (id) DO UPDATE SET name = excluded.name, "
            + "together = excluded.together",
            [("@id", circle.Id), ("@name", circle.Name), ("@together", circle.Together)]);
        connection.Run("DELETE FROM circle_person WHERE circle_id = @id", [("@id", circle.Id)]);
        foreach (var person in circle.People.Distinct())
        {
            connection.Run("INSERT INTO circle_person (circle_id, person_id) SELECT @id, id FROM person WHERE id = @person",
                [("@id", circle.Id), ("@person", person.Value)]);
        }
    }

    public bool Part(Guid circle)
    {
        using var connection = database.Connect();
        Documents.Drop(connection, Name(circle));
        return connection.Run("DELETE FROM circle WHERE id = @id", [("@id", circle)]) == 1;
    }

    private static string Name(PersonId id) => $"person:{id}";

    private static string Name(Guid circle) => $"circle:{circle}";

    private static bool Has(SqliteConnection connection, PersonId id) =>
        connection.Scalar("SELECT 1 FROM person WHERE id = @id", [("@id", id.Value)]) is not null;

    private void Insert(SqliteConnection connection, Person person) => connection.Run(
        "INSERT INTO person (id, name, created_at, format, details) VALUES (@id, @name, @now, @format, @details)",
        [("@id", person.Id.Value), ("@name", person.Name), ("@now", clock.GetUtcNow()), ("@format", Format),
            ("@details", Details(person))]);

    private static void Update(SqliteConnection connection, Person person) => connection.Run(
        "UPDATE person SET name = @name, format = @format, details = @details WHERE id = @id",
        [("@id", person.Id.Value), ("@name", person.Name), ("@format", Format), ("@details", Details(person))]);

    private static string Details(Person person)
    {
        var details = JsonSerializer.SerializeToNode(person, Json)!.AsObject();
        details.Remove("id");
        details.Remove("name");
        details.Remove("called");
        details.Remove("revision");
        return details.ToJsonString();
    }

    private static Person Read(SqliteDataReader r)
    {
        var details = JsonNode.Parse(r.GetString(2))!.AsObject();
        details["id"] = r.GetString(0);
        details["name"] = r.GetString(1);
        details["revision"] = r.GetInt32(3);
        return details.Deserialize<Person>(Json)!;
    }
}
