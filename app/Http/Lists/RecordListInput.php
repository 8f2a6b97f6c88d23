<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class RecordListInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'search' => 'nullable|string|max:200', 'filter' => 'nullable|json|max:20000', 'sort' => 'nullable|string|max:300',
            'page' => 'nullable|integer|min:1|max:100000', 'perPage' => 'nullable|integer|min:1|max:200', 'total' => 'nullable|in:yes,no',
            'columns' => 'nullable|string|max:2000',
        ];
    }

    public function meant(): array
    {
        return [
            'filter' => 'A condition, as a rule file writes it, in JSON.',
            'sort' => 'Columns, with commas between: fields, paths such as "customer.plan", "number" or "@since"; with '
                .'"-" in front, backwards.',
            'columns' => 'What to show, with commas between: as for sorting, and "@next" for what is pencilled in next. What '
                .'does not exist is left out.',
            'total' => 'Counting all that fit takes longer than a page of them; "no" leaves it out.',
        ];
    }
}
