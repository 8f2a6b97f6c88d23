<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Models\Ledger\Entry;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\PaperFacts;
use App\Store\Records\RecordHistory;
use App\Store\RefusedFor;
use App\Store\Rules\RuleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\OverlayFacts;
use VividLedger\House\Directory;
use VividLedger\Message\Address;
use VividLedger\Record\Alteration;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\SendMessage;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\VersionBumps;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Part;
use VividLedger\Words\Words;

/** Performs a message line on a record without keeping anything, to show what would go out. */
final readonly class LetterPreview
{
    public function __construct(
        private SchemaStore $schemas,
        private PaperFacts $facts,
        private Directory $directory,
        private Company $company,
        private HouseClock $clock,
        private RecordHistory $history,
    ) {
    }

    /** What a message says of “the change” is shown with the last one that was recorded. */
    private function lastChange(Record $record): ?Alteration
    {
        $last = Entry::query()->about($record->type, $record->id)->whereIn('kind', ['created', 'changed'])->max('id');

        return $last === null ? null : $this->history->change((int) $last)?->alteration();
    }

    /** @param  array<mixed>  $line  as a rule file writes it */
    public function of(RecordType $type, array $line, int $id, int $by): PreviewResource
    {
        $record = $this->facts->record($type->name, $id) ?? throw DomainError::noRecord($type, $id);
        $context = new Context($this->schemas->schema(), $this->directory, $type, $this->company->zone());
        $node = new Node(['kind' => SendMessage::kind()] + $line, '/line');
        $context->row(Part::Line, $node);
        $message = SendMessage::read($context, $node) ?? throw new DomainError(
            'unfinished_line',
            $context->sheet->problems[0]->message ?? Words::say('The line is not finished.'),
            RefusedFor::Invalid,
            RuleStore::listed($context->sheet->problems),
        );
        $now = $this->clock->now();
        $standing = new OverlayFacts($this->facts, $this->schemas->schema());
        $performance = new ActionContext(
            record: $record, type: $type, facts: $standing, schema: $this->schemas->schema(),
            display: new Display($standing, $this->company->zone()), now: $now, zone: $this->company->zone(),
            change: new Change($record, $record, $by, $now, told: $this->lastChange($record)), marks: new VersionBumps(null),
        );
        $sent = $message->preview($performance);
        $said = static fn (Address $address): string => $address->text();

        return new PreviewResource(
            to: array_map($said, $sent->to), cc: array_map($said, $sent->cc), replyTo: $sent->replyTo?->text(), subject: $sent->subject,
            html: $sent->html, text: $sent->text, path: $sent->path, missing: $sent->missing,
            trouble: $sent->to === [] ? Words::say('Nobody would get it: {path}.', path: $sent->path) : null,
        );
    }
}
