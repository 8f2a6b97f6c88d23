<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class FindInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'required|string|max:200'];
    }

    public function meant(): array
    {
        return [
            'text' => 'A number, or words.',
        ];
    }
}
