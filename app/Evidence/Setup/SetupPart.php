<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Store\DomainError;

/** One sort of thing that a company sets up, as files in a folder of their own. Each sort is a file beside this one. */
interface SetupPart
{
    /** Name of the folder, such as "letters". */
    public static function folder(): string;

    /** Whether their order says something: then the names of the files keep it. */
    public static function isInOrder(): bool;

    /** @return array<string, mixed> JSON Schema of what a file may say besides "$schema" and "format" */
    public static function schema(): array;

    /** @return list<array<string, mixed>> what there is here, in an order in which each can be brought in after those before it */
    public function documents(): array;

    /**
     * What makes a document here and one there the same thing.
     *
     * @param  array<string, mixed>  $document
     */
    public static function key(array $document): string;

    /**
     * @param  ?array<string, mixed>  $here  null for what is new
     * @param  array<string, mixed>  $there
     * @return list<string> what would change, in sentences
     */
    public function difference(?array $here, array $there): array;

    /**
     * Makes it, or changes what is there into it.
     *
     * @param  array<string, mixed>  $document  that fits the schema
     *
     * @throws DomainError
     */
    public function bring(array $document, Bringing $how): void;
}
