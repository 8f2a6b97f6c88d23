<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use Closure;
use VividLedger\Engine\GuardState;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;

/** Once in the life of a record, whichever page of the rule it was. */
final readonly class OncePerRecord implements RepeatGuard
{
    use UsedUp;

    private function __construct(private string $wording)
    {
    }

    public static function kind(): string
    {
        return 'once_per_record';
    }

    public static function label(RecordType $type): string
    {
        return 'once per '.$type->inSentence();
    }

    public static function read(Context $context, Node $node): self
    {
        $context->word(self::label($context->type), WordRole::Value, $node->at, Edit::Guard);

        return new self(self::label($context->type));
    }

    public function wording(): string
    {
        return $this->wording;
    }

    public function holdsBack(GuardState $state, Record $record, \DateTimeImmutable $now, Closure $isUsed): bool
    {
        return $state->count > 0;
    }

    public function key(Record $record, string $occasion, GuardState $state): string
    {
        return 'once';
    }
}
