<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class RecordFileInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'search' => 'nullable|string|max:200', 'filter' => 'nullable|json|max:20000', 'columns' => 'nullable|string|max:2000',
        ];
    }

    public function meant(): array
    {
        return [
            'filter' => 'A condition, as a rule file writes it, in JSON.',
            'columns' => 'What to take out, with commas between; every field where nothing is named.',
        ];
    }
}
