<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class BinInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['before' => 'nullable|integer|min:0'];
    }

    public function meant(): array
    {
        return [
            'before' => 'For earlier ones, the number that came with the later.',
        ];
    }
}
