<?php

declare(strict_types=1);

namespace App\Http\Describe;

use OpenApi\Attributes as OA;

/** For answers with objects in them: an object that is empty is written {}, where PHP would write a list. */
trait SaysObjects
{
    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        $said = get_object_vars($this);
        foreach (self::objects() as $name) {
            if ($said[$name] === []) {
                $said[$name] = new \stdClass;
            }
        }

        return $said;
    }

    /** @return list<string> names of the members that are objects */
    private static function objects(): array
    {
        static $names = null;
        if ($names === null) {
            $names = [];
            foreach ((new \ReflectionClass(self::class))->getConstructor()?->getParameters() ?? [] as $parameter) {
                foreach ($parameter->getAttributes(OA\Property::class) as $attribute) {
                    if (($attribute->getArguments()['type'] ?? null) === 'object') {
                        $names[] = $parameter->getName();
                    }
                }
            }
        }

        /** @var list<string> $names */
        return $names;
    }
}
