<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class RecordGroupsInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'search' => 'nullable|string|max:200', 'filter' => 'nullable|json|max:20000', 'by' => 'nullable|string|max:120',
            'sums' => 'nullable|string|max:300',
        ];
    }

    public function meant(): array
    {
        return [
            'filter' => 'A condition, as a rule file writes it, in JSON.',
            'by' => 'A choice, person, record or tick field, or a path to one.',
            'sums' => 'Number fields, with commas between.',
        ];
    }
}
