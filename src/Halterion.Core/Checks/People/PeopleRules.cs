using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>What the rules of people share.</summary>
public abstract class PeopleRule(string code, string says, string why, string source) : Rule(code, says, why, source)
{
    /// <summary>What everyone was given, station by station.</summary>
    protected static IEnumerable<(StationAt At, Person Person, AssignedStation Given)> Given(ClassReview review, Occasion occasion)
    {
        var people = occasion.Room.People.ToDictionary(p => p.Id);
        var stations = review.Stations.ToDictionary(s => s.Id);
        return from row in occasion.Given.People
               from given in row.Stations
               select (stations[given.Station], people[row.Person], given);
    }

    /// <summary>The names of several, such as "Ada and Bo".</summary>
    protected static string Names(IEnumerable<Person> people) => Told.And(people.Select(p => p.Nick ?? p.Name).Distinct());

    /// <summary>What one person does at a station.</summary>
    protected static Option? Of(StationAt at, AssignedStation given) =>
        given.Option is { } id ? at.Station.Options.FirstOrDefault(o => o.Id == id) : null;
}
