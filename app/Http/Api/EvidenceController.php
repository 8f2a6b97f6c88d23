<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Evidence\FieldRules;
use App\Evidence\Proofreading;
use App\Evidence\Rehearsals;
use App\Evidence\RulesInForce;
use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\FieldRuleShape;
use App\Http\Api\Shape\FixShape;
use App\Http\Api\Shape\RehearsalShape;
use App\Http\Api\Shape\RemarkShape;
use App\Store\Refused;
use App\Store\RuleStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Proofread\Remark;
use VividLedger\Rule\Reading\RuleReader;

/** Evidence about a rule before it is in force: its life on one record, and what proofreading finds. Nothing is touched. */
final class EvidenceController extends Controller
{
    /** No page has this number: what is being written stands beside the pages. */
    public const UNPUBLISHED = 1_000_000;

    #[OA\Post(path: '/api/remarks', operationId: 'remarks', description: 'What proofreading finds in a rule file that reads soundly; of one that does not, nothing. Nothing is kept.', tags: ['evidence'], requestBody: new Body(['file' => 'object', 'rule?' => 'integer']), responses: [new Ok(RemarkShape::class, list: true)])]
    public function remarks(Request $request, RuleReader $reader, Proofreading $proofreading): JsonResponse
    {
        $given = $request->validate(['file' => 'required|array', 'rule' => 'nullable|integer']);
        $id = isset($given['rule']) ? (int) $given['rule'] : null;
        $rule = $reader->read($given['file'], $id ?? RulesInForce::UNKEPT, self::UNPUBLISHED, $proofreading->eitherOr($id))->rule;

        return new JsonResponse(array_map(static fn (Remark $remark): RemarkShape => new RemarkShape(
            $remark->level->value, $remark->at, $remark->code, $remark->message, $remark->advice, $remark->fix === null ? null : new FixShape($remark->fix->label, $remark->fix->at, $remark->fix->value),
        ), $rule === null ? [] : $proofreading->remarks($rule, $given['file'])));
    }

    #[OA\Get(path: '/api/schema/{type}/fields/{field}/rules', operationId: 'fieldRules', description: 'Which rules in force could ever change a field.', tags: ['evidence'], responses: [new Ok(FieldRuleShape::class, list: true)])]
    public function fieldRules(string $type, string $field, FieldRules $rules): JsonResponse
    {
        return new JsonResponse(array_map(static fn (array $found): FieldRuleShape => new FieldRuleShape(...$found), $rules->of($this->type($type)->name, $field)));
    }

    #[OA\Post(path: '/api/rehearse', operationId: 'rehearse', description: 'Plays a rule file on a record: {"id"}, {"pick": "matched", "nearly" or "made_up"} or {"values"}. What happens first is proposed when it is left out. Nothing is kept.', tags: ['evidence'], requestBody: new Body(['file' => 'object', 'rule?' => 'integer', 'record?' => 'object', 'opening?' => 'object', 'whatIfs?' => 'objects', 'others?' => 'boolean']), responses: [new Ok(RehearsalShape::class)])]
    public function play(Request $request, RuleReader $reader, Rehearsals $rehearsals, RehearsalShapes $shapes): RehearsalShape
    {
        $given = $request->validate(['file' => 'required|array', 'rule' => 'nullable|integer', 'record' => 'nullable|array', 'opening' => 'nullable|array', 'whatIfs' => 'nullable|array|max:20', 'others' => 'nullable|boolean']);
        $page = $reader->read($given['file'], (int) ($given['rule'] ?? RulesInForce::UNKEPT), self::UNPUBLISHED);
        if ($page->rule === null) {
            throw new Refused('unfinished_rule', 'The rule is not finished, so it cannot be played yet.', 422, RuleStore::listed($page->problems));
        }
        $asked = array_filter($given, static fn (mixed $value): bool => $value !== null);

        return $shapes->of($page->rule, $rehearsals->play($page->rule, $asked, $this->person($request)->id));
    }
}
