namespace Pantomet.Platform;

/// <summary>A link stands where a folder or a file was expected, and is not followed: it may lead anywhere.</summary>
/// <param name="name">What is a link.</param>
public sealed class LinkedPathException(string name) : IOException(PlatformTexts.IsALinkOrIsNo(name));

/// <summary>What was to be opened is no regular file but a pipe, a socket or a device.</summary>
/// <param name="name">What it is called.</param>
public sealed class NotRegularException(string name) : IOException(PlatformTexts.IsNotARegularFileBut(name));
