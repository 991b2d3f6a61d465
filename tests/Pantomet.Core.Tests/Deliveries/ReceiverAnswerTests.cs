using Pantomet.Core.Deliveries;

namespace Pantomet.Core.Tests.Deliveries;

public sealed class ReceiverAnswerTests
{
    private const string Problem = "application/problem+json";

    [Theory]
    [InlineData(200, AnswerMeaning.Accepted)]
    [InlineData(201, AnswerMeaning.Accepted)]
    [InlineData(204, AnswerMeaning.Accepted)]
    [InlineData(302, AnswerMeaning.Closed)]
    [InlineData(400, AnswerMeaning.Refused)]
    [InlineData(401, AnswerMeaning.Closed)]
    [InlineData(403, AnswerMeaning.Refused)]
    [InlineData(404, AnswerMeaning.Refused)]
    [InlineData(408, AnswerMeaning.Later)]
    [InlineData(413, AnswerMeaning.Refused)]
    [InlineData(422, AnswerMeaning.Refused)]
    [InlineData(429, AnswerMeaning.Later)]
    [InlineData(500, AnswerMeaning.Later)]
    [InlineData(503, AnswerMeaning.Later)]
    public void A_status_says_whether_the_file_is_there_unwanted_or_to_be_sent_again(int status, AnswerMeaning meaning)
    {
        var answer = ReceiverAnswer.Read(status, null, "");
        Assert.Equal(meaning, answer.Meaning);
        // Whoever reads that a file was not taken reads why, though the receiver kept silent.
        Assert.Equal(meaning != AnswerMeaning.Accepted, answer.Said.Count > 0);
    }

    /// <summary>The example of RFC 9457, section 3, with two of its errors.</summary>
    [Fact]
    public void Problem_details_are_told_with_all_that_is_wrong()
    {
        var answer = ReceiverAnswer.Read(
            422,
            Problem,
            """
            { "type": "https://example.net/validation-error", "title": "Your request is not valid.",
              "errors": [ { "detail": "must be a positive integer", "pointer": "#/age" },
                          { "detail": "must be 'green', 'red' or 'blue'", "pointer": "#/profile/color" } ] }
            """
        );
        Assert.Equal(["Your request is not valid.", "must be a positive integer", "must be 'green', 'red' or 'blue'"], answer.Said);
    }

    [Theory]
    [InlineData("text/plain", "At most 20 MB a file.\n", "At most 20 MB a file.")]
    [InlineData("application/json", """{"error":{"message":"Too narrow."}}""", "Too narrow.")]
    [InlineData("application/json", """{"errors":{"picture":["Too narrow."]}}""", "Too narrow.")]
    [InlineData("application/json", """["Too narrow."]""", "Too narrow.")]
    [InlineData("application/xml", "<Error><Code>Odd</Code><Message>Too narrow.</Message></Error>", "Too narrow.")]
    [InlineData("application/json", "{", "The receiver refused the file without a reason (status 400).")]
    [InlineData("application/xml", "<!DOCTYPE a [<!ENTITY b 'c'>]><a/>", "The receiver refused the file without a reason (status 400).")]
    [InlineData("text/html", "<h1>Bad</h1>", "The receiver refused the file without a reason (status 400).")]
    public void What_a_receiver_says_is_found_in_whatever_it_answers(string type, string body, string sentence) =>
        Assert.Equal([sentence], ReceiverAnswer.Read(400, type, body).Said);

    [Fact]
    public void What_a_receiver_says_is_short_and_of_one_line_each()
    {
        var answer = ReceiverAnswer.Read(
            400,
            "application/json",
            $$"""{"detail":"a\n\u0007b {{new string('x', 5000)}}","errors":[{{string.Join(',', Enumerable.Range(0, 90))}},{{string.Join(',', Enumerable.Range(0, 90).Select(i => $"\"{i}\""))}}]}"""
        );
        Assert.StartsWith("a b x", answer.Said[0], StringComparison.Ordinal);
        Assert.All(answer.Said, sentence => Assert.InRange(sentence.Length, 1, 300));
        Assert.Equal(12, answer.Said.Count);
    }

    [Fact]
    public void A_web_page_where_an_answer_should_be_is_no_yes()
    {
        var answer = ReceiverAnswer.Read(200, "text/html", "<title>Sign in</title>");
        Assert.Equal(AnswerMeaning.Closed, answer.Meaning);
        // Some servers say on a page that a file was created.
        Assert.Equal(AnswerMeaning.Accepted, ReceiverAnswer.Read(201, "text/html", "<h1>201 Created</h1>").Meaning);
    }

    /// <summary>The pointers of RFC 6901, section 5, that lead to texts, in a document of its form.</summary>
    [Theory]
    [InlineData("/foo", new[] { "bar", "baz" })]
    [InlineData("/foo/0", new[] { "bar" })]
    [InlineData("/a~1b", new[] { "one" })]
    [InlineData("/m~0n", new[] { "eight" })]
    [InlineData("/sizes", new[] { "/s.jpg", "/l.jpg" })]
    [InlineData("/nothing", new string[0])]
    [InlineData("/foo/7", new string[0])]
    public void A_pointer_leads_to_the_addresses_of_what_is_shown(string pointer, string[] addresses) =>
        Assert.Equal(
            addresses,
            ReceiverAnswer.Shown(
                """{"foo":["bar","baz"],"a/b":"one","m~n":"eight","sizes":[{"href":"/s.jpg","width":1},{"url":"/l.jpg"}]}""",
                pointer
            )
        );
}
