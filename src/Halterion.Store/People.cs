using System.Collections.Immutable;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>The roster.</summary>
public sealed class People(Database database, TimeProvider clock)
{
    public ImmutableArray<Person> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT id, name, usual_tier, stature_cm FROM person ORDER BY name COLLATE NOCASE, id", [], Read)];
    }

    public Person Add(string name, Tier usualTier, int? statureCm = null)
    {
        var person = new Person(Guid.CreateVersion7(), name, usualTier, statureCm);
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO person (id, name, usual_tier, stature_cm, created_at) VALUES (@id, @name, @tier, @stature, @now)",
            [("@id", person.Id), ("@name", name), ("@tier", usualTier.ToString()), ("@stature", statureCm), ("@now", clock.GetUtcNow())]);
        return person;
    }

    public bool Change(Person person)
    {
        using var connection = database.Connect();
        return connection.Run(
            "UPDATE person SET name = @name, usual_tier = @tier, stature_cm = @stature WHERE id = @id",
            [("@id", person.Id), ("@name", person.Name), ("@tier", person.UsualTier.ToString()), ("@stature", person.StatureCm)]) == 1;
    }

    /// <summary>Erases a person and all that was logged of them: from the data, from its free pages and log, and from every copy.</summary>
    public bool Erase(Guid id)
    {
        using (var connection = database.Connect())
        {
            if (connection.Run("DELETE FROM person WHERE id = @id", [("@id", id)]) == 0)
            {
                return false;
            }
        }

        database.Copies.Erase(id);
        database.Scrub();
        return true;
    }

    private static Person Read(SqliteDataReader r) =>
        new(Guid.Parse(r.GetString(0)), r.GetString(1), Enum.Parse<Tier>(r.GetString(2)), r.IsDBNull(3) ? null : r.GetInt32(3));
}
