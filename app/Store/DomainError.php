<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** What was asked cannot be done as it was given; nothing has changed. */
class DomainError extends \DomainException
{
    /**
     * @param  string  $reason  a stable code for programs
     * @param  list<array{at: string, code: string, message: string}>  $problems  each at its field or word
     * @param  array<string, mixed>  $more  further members of the problem document
     */
    public function __construct(
        public readonly string $reason,
        string $message,
        public readonly RefusedFor $for = RefusedFor::Invalid,
        public readonly array $problems = [],
        public readonly array $more = [],
    ) {
        parent::__construct($message);
    }

    /** What was given at one place does not do. */
    public static function at(string $at, string $message, RefusedFor $for = RefusedFor::Invalid): self
    {
        return new self('invalid_values', $message, $for, [['at' => $at, 'code' => 'invalid_value', 'message' => $message]]);
    }

    /** There is none such, or none that whoever asks may see. */
    public static function missing(string $message): self
    {
        return new self('not_found', $message, RefusedFor::Missing);
    }

    public static function noRecord(RecordType $type, int $id): self
    {
        return new self(
            'not_found',
            Words::say('There is no {record} {number}.', record: Words::within($type->label), number: $type->numberOf($id)),
            RefusedFor::Missing,
        );
    }
}
