<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Evidence\Rehearsals;
use App\Evidence\RulesInForce;
use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\RehearsalShape;
use App\Store\Refused;
use App\Store\RuleStore;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Rule\Reading\RuleReader;

/** Rehearsals: a rule's life on one record, played without touching anything. */
final class RehearsalController extends Controller
{
    #[OA\Post(path: '/api/rehearse', operationId: 'rehearse', description: 'Plays a rule file on a record: {"id"}, {"pick": "matched", "nearly" or "made_up"} or {"values"}. What happens first is proposed when it is left out. Nothing is kept.', tags: ['evidence'], requestBody: new Body(['file' => 'object', 'rule?' => 'integer', 'record?' => 'object', 'opening?' => 'object', 'whatIfs?' => 'objects', 'others?' => 'boolean']), responses: [new Ok(RehearsalShape::class)])]
    public function play(Request $request, RuleReader $reader, Rehearsals $rehearsals, RehearsalShapes $shapes): RehearsalShape
    {
        $given = $request->validate(['file' => 'required|array', 'rule' => 'nullable|integer', 'record' => 'nullable|array', 'opening' => 'nullable|array', 'whatIfs' => 'nullable|array|max:20', 'others' => 'nullable|boolean']);
        $page = $reader->read($given['file'], (int) ($given['rule'] ?? RulesInForce::UNKEPT), 1_000_000);
        if ($page->rule === null) {
            throw new Refused('unfinished_rule', 'The rule is not finished, so it cannot be played yet.', 422, RuleStore::listed($page->problems));
        }
        $asked = array_filter($given, static fn (mixed $value): bool => $value !== null);

        return $shapes->of($page->rule, $rehearsals->play($page->rule, $asked, $this->person($request)->id));
    }
}
