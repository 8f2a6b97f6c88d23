<?php

declare(strict_types=1);

// Four functions of PHP 8.5, for the versions of PHP that lack them.

if (! function_exists('array_first')) {
    /** @param  array<mixed>  $array The array to read; null comes back when it is empty. */
    function array_first(array $array): mixed
    {
        foreach ($array as $value) {
            return $value;
        }

        return null;
    }
}

if (! function_exists('array_last')) {
    /** @param  array<mixed>  $array The array to read; null comes back when it is empty. */
    function array_last(array $array): mixed
    {
        return $array === [] ? null : current(array_slice($array, -1));
    }
}

if (! function_exists('get_error_handler')) {
    function get_error_handler(): ?callable
    {
        // Setting a handler is the only way to learn the present one; the old one is put back at once.
        $present = set_error_handler(static fn (): bool => false);
        restore_error_handler();

        return $present;
    }
}

if (! function_exists('get_exception_handler')) {
    function get_exception_handler(): ?callable
    {
        $present = set_exception_handler(null);
        restore_exception_handler();

        return $present;
    }
}
