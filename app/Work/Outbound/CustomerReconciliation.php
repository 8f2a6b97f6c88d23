<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Models\Columns;
use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\Records\SaveRecord;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\PendingRequest;
use Illuminate\Http\Client\Response;
use Illuminate\Support\Facades\Http;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Compares the customers of the accounting system with ours, and mends what differs, one way or the other. */
final readonly class CustomerReconciliation
{
    private const SECONDS = 20;

    private const PAGE = 500;

    public function __construct(private SchemaStore $schemas, private SaveRecord $save)
    {
    }

    /**
     * @return list<Difference> those that are on one side only, and those that say something else
     *
     * @throws DomainError when it cannot be asked
     */
    public function differences(): array
    {
        $theirs = [];
        foreach ((array) $this->asked('GET', '/customers')->json('customers') as $one) {
            if (is_array($one) && is_string($one['number'] ?? null)) {
                $theirs[$one['number']] = $one;
            }
        }
        $found = [];
        $type = $this->type();
        StoredRecord::rowsOf($type)->whereNotNull($this->number())->orderBy('id')->chunk(
            self::PAGE,
            function ($rows) use (&$found, &$theirs, $type): void {
                foreach ($rows as $row) {
                    $record = Columns::record($type, $row);
                    $number = (string) $record->value($this->number());
                    $differs = $this->between($record, $theirs[$number] ?? null);
                    if (! isset($theirs[$number])) {
                        $found[] = new Difference('missing_there', $number, $record, []);
                    } elseif ($differs !== []) {
                        $found[] = new Difference('differs', $number, $record, $differs);
                    }
                    unset($theirs[$number]);
                }
            },
        );
        foreach ($theirs as $number => $one) {
            $found[] = new Difference('missing_here', (string) $number, null, $this->members($one));
        }

        return $found;
    }

    /**
     * @param  string  $way  "ours" writes ours there, "theirs" writes theirs here, "forget" clears the number here
     *
     * @throws DomainError when it cannot be done, with what the other side says
     */
    public function mend(int $record, string $way, Actor $actor): void
    {
        $type = $this->type();
        $row = StoredRecord::rowsOf($type)->where('id', $record)->first() ?? throw DomainError::noRecord($type, $record);
        $ours = Columns::record($type, $row);
        $number = (string) $ours->value($this->number());
        if ($way === 'forget') {
            $this->save->change($type, $record, $ours->version, [$this->number() => null], $actor);

            return;
        }
        if ($way === 'ours') {
            $body = [];
            foreach ($this->pairs() as $field => $member) {
                $body[$member] = (string) $ours->value($field);
            }
            $this->asked('PUT', '/customers/'.rawurlencode($number), $body);

            return;
        }
        foreach ((array) $this->asked('GET', '/customers')->json('customers') as $one) {
            if (is_array($one) && ($one['number'] ?? null) === $number) {
                $values = [];
                foreach ($this->pairs() as $field => $member) {
                    $values[$field] = is_scalar($one[$member] ?? null) ? (string) $one[$member] : null;
                }
                $this->save->change($type, $record, $ours->version, $values, $actor);

                return;
            }
        }
        throw new DomainError('not_found', Words::say('There is no customer {number} there any more.', number: $number),
            RefusedFor::Conflict);
    }

    /**
     * @param  ?array<array-key, mixed>  $theirs
     * @return array<string, array{string, string}> ours and theirs, by the label of the field
     */
    private function between(Record $record, ?array $theirs): array
    {
        $differs = [];
        foreach ($theirs === null ? [] : $this->pairs() as $field => $member) {
            [$one, $other] = [trim((string) $record->value($field)), is_scalar($theirs[$member] ?? null) ? (string) $theirs[$member] : ''];
            if ($one !== trim($other)) {
                $differs[$this->type()->field($field)->label ?? $field] = [$one, $other];
            }
        }

        return $differs;
    }

    /**
     * @param  array<array-key, mixed>  $theirs
     * @return array<string, array{string, string}>
     */
    private function members(array $theirs): array
    {
        $members = [];
        foreach ($this->pairs() as $field => $member) {
            $label = $this->type()->field($field)->label ?? $field;
            $members[$label] = ['', is_scalar($theirs[$member] ?? null) ? (string) $theirs[$member] : ''];
        }

        return $members;
    }

    /**
     * @param  array<string, string>  $body
     *
     * @throws DomainError
     */
    private function asked(string $method, string $path, array $body = []): Response
    {
        if (! BackOfficeDoor::isOpen()) {
            throw new DomainError('no_back_office', Words::say('No accounting system is named in the configuration.'),
                RefusedFor::Conflict);
        }
        try {
            $answer = $this->request()->send($method, BackOfficeDoor::url().$path, $body === [] ? [] : ['json' => $body]);
        } catch (ConnectionException) {
            throw new DomainError('not_reached', Words::say('The accounting system cannot be reached. Try again later.'), RefusedFor::Busy);
        }
        if (! $answer->successful()) {
            $said = $answer->json('message');
            throw new DomainError('refused_there', Words::say(
                'The accounting system says: {said}',
                said: is_string($said) ? $said : Words::say('error {status}', status: $answer->status()),
            ),
                RefusedFor::Conflict);
        }

        return $answer;
    }

    private function request(): PendingRequest
    {
        return Http::timeout(self::SECONDS)->withoutRedirecting()->withToken(BackOfficeDoor::secret());
    }

    /** @return array<string, string> members of theirs, by our fields */
    private function pairs(): array
    {
        $type = $this->type();

        return array_filter(
            (array) config('ledger.back_office.members'),
            static fn (string $field): bool => $type->field($field) !== null,
            ARRAY_FILTER_USE_KEY,
        );
    }

    private function number(): string
    {
        return (string) config('ledger.back_office.number');
    }

    private function type(): RecordType
    {
        $type = $this->schemas->schema()->type((string) config('ledger.back_office.type'));

        return $type?->field($this->number()) !== null ? $type : throw new DomainError(
            'no_back_office',
            Words::say('No field keeps the number that the accounting system gives.'),
            RefusedFor::Conflict,
        );
    }
}
