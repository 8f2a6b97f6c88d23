<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Message\Recipients;
use VividLedger\People\PersonExpressions;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;

/** People as rules find them: "the owner’s manager", "the next of Sales in turn"; and recipients of messages. */
final class PersonSlots
{
    public static function person(): Simple
    {
        return new Simple(
            static fn (mixed $json, Scope $scope): ?string => is_array($json) ? self::said($json, $scope) : null,
            static function (Cursor $cursor, Scope $scope): ?array {
                $found = $cursor->label(self::labels(PersonExpressions::offers($scope->context())));
                while ($found !== null && $cursor->words('’s manager')) {
                    $found = [['kind' => 'manager', 'of' => $found[0]]];
                }

                return $found;
            },
        );
    }

    public static function recipient(): Simple
    {
        return new Simple(
            static function (mixed $json, Scope $scope): ?string {
                if (is_array($json) && ($json['kind'] ?? null) === 'person') {
                    return is_array($json['person'] ?? null)
                        && array_keys($json) === ['kind', 'person'] ? self::said($json['person'], $scope) : null;
                }
                if (is_array($json) && ($json['kind'] ?? null) === 'address') {
                    return is_string($json['address'] ?? null) ? Cursor::quote($json['address']) : null;
                }
                $found = array_search($json, self::labels(Recipients::offers($scope->context())), false);

                return $found === false ? null : (string) $found;
            },
            static function (Cursor $cursor, Scope $scope): ?array {
                $address = $cursor->quoted();
                if ($address !== null) {
                    return [['kind' => 'address', 'address' => $address]];
                }
                $start = $cursor->at;
                $person = self::person()->parse($cursor, $scope, []);
                $end = $cursor->at;
                $cursor->at = $start;
                $other = $cursor->label(array_filter(
                    self::labels(Recipients::offers($scope->context())),
                    static fn (mixed $json): bool => ! is_array($json) || ($json['kind'] ?? null) !== 'person',
                ));
                if ($other === null || $end >= $cursor->at) {
                    $cursor->at = $person === null ? $start : $end;

                    return $person === null ? null : [['kind' => 'person', 'person' => $person[0]]];
                }

                return $other;
            },
        );
    }

    /** @param  array<mixed>  $json */
    private static function said(array $json, Scope $scope): ?string
    {
        $found = array_search($json, self::labels(PersonExpressions::offers($scope->context())), false);
        if ($found !== false) {
            return (string) $found;
        }
        $of = ($json['kind'] ?? null) === 'manager' && is_array($json['of'] ?? null)
            && count($json) === 2 ? self::said($json['of'], $scope) : null;

        return $of === null ? null : "{$of}’s manager";
    }

    /**
     * @param  list<Offer>  $offers
     * @return array<string, mixed>
     */
    private static function labels(array $offers): array
    {
        $labels = [];
        foreach ($offers as $offer) {
            $labels[$offer->label] ??= $offer->value;
        }

        return $labels;
    }
}
