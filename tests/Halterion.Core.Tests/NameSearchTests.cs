using Halterion.Core.People;

namespace Halterion.Core.Tests;

/// <summary>A name is found however it is written (escapes: RFC 8259, section 7), and nothing else is taken for it.</summary>
public class NameSearchTests
{
    [Theory]
    [InlineData("With Zoë Brandão today", "With someone today")]
    [InlineData("ZOË BRANDÃO", "someone")]
    [InlineData("zoë  brandão's mat", "someone's mat")]
    [InlineData("""{"title":"For Zo\u00eb Brand\u00E3o"}""", """{"title":"For someone"}""")]
    [InlineData("""{"note":"first\nZoë\u0020Brandão"}""", """{"note":"first\nsomeone"}""")]
    [InlineData("""{"note":"\u005A\u006f\u00eb brandão"}""", """{"note":"someone"}""")]
    [InlineData("Zoë", "Zoë")]
    [InlineData("Zoë Brandãozinho", "Zoë Brandãozinho")]
    [InlineData("Azoë Brandão", "Azoë Brandão")]
    public void A_whole_name_goes_wherever_it_stands(string text, string without) =>
        Assert.Equal(without, new NameSearch("Zoë Brandão").Without(text));

    [Theory]
    [InlineData("O'Neil Fenn", "o’neil fenn and Bo", "someone and Bo")]
    [InlineData("O'Neil Fenn", """{"a":"O\u2019Neil Fenn"}""", """{"a":"someone"}""")]
    [InlineData("Al \"Ace\" Moor", "Al \"Ace\" Moor", "someone")]
    public void Marks_in_a_name_are_no_hindrance(string name, string text, string without) =>
        Assert.Equal(without, new NameSearch(name).Without(text));

    /// <summary>Else erasing somebody called May, or Main, would break every class.</summary>
    [Theory]
    [InlineData("Main", """{"tier":"main","name":"Main","note":"ask Main first"}""",
            """{"tier":"main","name":"someone","note":"ask someone first"}""")]
    [InlineData("Squat", """{"move":"split-squat","alias":"squat"}""", """{"move":"split-squat","alias":"squat"}""")]
    [InlineData("Name", """{"name":"Six","title":"x"}""", """{"name":"Six","title":"x"}""")]
    [InlineData("Greta", "Greta, greta and Margreta", "someone, someone and Margreta")]
    public void A_name_alone_is_never_a_word_of_the_format(string name, string text, string without) =>
        Assert.Equal(without, new NameSearch(name).Without(text));

    [Fact]
    public void What_stands_around_it_is_shown_with_its_ends_cut()
    {
        var text = new string('x', 100) + " and Ida Fenn\ncame " + new string('y', 100);
        Assert.Equal("…x and Ida Fenn came…", new NameSearch("Ida Fenn").Around(text, 6));
        Assert.Null(new NameSearch("Ida Fern").Around(text, 6));
    }
}
