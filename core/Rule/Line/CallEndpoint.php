<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Call\EndpointSlot;
use VividLedger\Rule\Call\KeptAnswer;
use VividLedger\Rule\Call\KeptSlot;
use VividLedger\Rule\Call\Sent;
use VividLedger\Rule\Call\SentSlot;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\CallMade;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Hands data of the record to another system, and keeps what it answers. */
final readonly class CallEndpoint implements Calls, Line
{
    /**
     * @param  list<Sent>  $sent
     * @param  list<KeptAnswer>  $keeps
     */
    private function __construct(private string $endpoint, private array $sent, private array $keeps)
    {
    }

    public static function kind(): string
    {
        return 'call';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(static fn (Context $context): array => [
            'send' => [['path' => $context->type->title, 'name' => $context->type->title]],
        ])
            ->says('Call {endpoint} with {send}[; keep {keep}]')
            ->orSaid(
                '(send|post|hand|give) {send} to {endpoint}[; keep {keep}]',
                '(call|notify|tell) [the ][endpoint ]{endpoint} (with|of|about) {send}[; keep {keep}]',
            )
            ->slot('endpoint', new EndpointSlot)->slot('send', new SentSlot)->slot('keep', new KeptSlot);
    }

    public static function label(): string
    {
        return 'Call another system';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self(
            $read->text('endpoint'),
            $read->all('send', Sent::class),
            $read->all('keep', KeptAnswer::class),
        );
    }

    public function waitedAs(): WaitedSort
    {
        return WaitedSort::Call;
    }

    public function ends(): array
    {
        return [];
    }

    public function keeps(): array
    {
        return $this->keeps;
    }

    public function perform(ActionContext $performance): void
    {
        $payload = [];
        foreach ($this->sent as $sent) {
            $value = $sent->value($performance->view(), $performance->display, $performance->number());
            $payload = self::put($payload, explode('.', $sent->name), $value);
        }
        $performance->call(new CallMade(
            record: $performance->record, endpoint: $this->endpoint, payload: $payload, keeps: $this->keeps,
            place: $performance->placed->place ?? 0, key: $performance->placed->key ?? '',
        ));
    }

    /**
     * @param  array<array-key, mixed>  $payload
     * @param  list<string>  $names  the levels that lead to the value
     * @return array<array-key, mixed>
     */
    private static function put(array $payload, array $names, string|int|bool|null $value): array
    {
        $name = $names[0] ?? '';
        $below = $payload[$name] ?? null;
        $payload[$name] = count($names) > 1 ? self::put(is_array($below) ? $below : [], array_slice($names, 1), $value) : $value;

        return $payload;
    }
}
