namespace Pantomet.Platform;

/// <summary>A link stands where a folder or a file was expected, and is not followed: it may lead anywhere.</summary>
/// <param name="name">What is a link.</param>
public sealed class LinkedPathException(string name)
    : IOException($"\"{name}\" is a link, or no folder any more. Links are not followed: they may lead elsewhere.");

/// <summary>What was to be opened is no regular file but a pipe, a socket or a device.</summary>
/// <param name="name">What it is called.</param>
public sealed class NotRegularException(string name)
    : IOException($"\"{name}\" is no regular file but a pipe, a socket or a device. It is not opened.");
