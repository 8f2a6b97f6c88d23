<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Scope;

/** Fields by their labels: of the record itself, and along references, "Customer › Plan". */
final class Fields
{
    /** A field of the record itself. */
    public static function own(): Simple
    {
        return Simple::labelled(static fn (Scope $scope): array => self::labels($scope));
    }

    /** A list of own fields. */
    public static function several(): Slot
    {
        return Simple::many(self::own(), 'or');
    }

    /** A field without an article before it: "Owner" is the field, where "the Owner" can be the person in it. */
    public static function bare(): Simple
    {
        $path = self::path();

        return new Simple(
            $path->print(...),
            static function (Cursor $cursor, Scope $scope, array $around) use ($path): ?array {
                $cursor->skip();
                $start = $cursor->at;
                $cursor->words('the');
                $isBare = $cursor->at === $start;
                $cursor->at = $start;

                return $isBare ? $path->parse($cursor, $scope, $around) : null;
            },
        );
    }

    /** A dotted path. */
    public static function path(): Simple
    {
        return new Simple(
            static fn (mixed $json, Scope $scope): ?string => is_string($json) ? $scope->schema->path($scope->type, $json)?->label() : null,
            self::parsePath(...),
        );
    }

    /** @return ?array{string} */
    public static function parsePath(Cursor $cursor, Scope $scope): ?array
    {
        $names = [];
        $best = null;
        $type = $scope->type;
        for ($hop = 0; $hop <= Schema::MAX_HOPS; $hop++) {
            $found = $cursor->label(self::labels($scope->about($type)));
            if ($found === null) {
                break;
            }
            $names[] = $found[0];
            $best = [[implode('.', $names)], $cursor->at];
            $next = $scope->schema->behind($type->field($found[0]));
            if ($next === null || $cursor->pattern('›', '›') === null) {
                break;
            }
            $type = $next;
        }
        if ($best === null) {
            return null;
        }
        $cursor->at = $best[1];

        return $best[0];
    }

    public static function of(Scope $scope, mixed $name): ?Field
    {
        return is_string($name) ? $scope->schema->path($scope->type, $name)?->field : null;
    }

    /** @return array<string, string> names by label; two fields of one label go by their names */
    private static function labels(Scope $scope): array
    {
        $labels = [];
        foreach ($scope->type->fields as $field) {
            $labels[isset($labels[$field->label]) ? $field->name : $field->label] = $field->name;
        }

        return $labels;
    }
}
