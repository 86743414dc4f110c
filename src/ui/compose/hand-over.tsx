'use client';

import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { RuleRow } from '@/contracts/rules';
import {
  DELIVERIES,
  DELIVERY_FORMS,
  carriesFile,
  isInTheClear,
  type DeliveryForm,
} from '@/core/policy/delivery';
import type { HandingOver } from '@/core/compose/draft';
import { formsOf, judgeWays, waysOf } from '@/core/policy/rules';
import { ChipButton } from '@/ui/shell/chips';
import { deliveryWords, formWords } from '@/ui/words/delivery-words';
import { ruleLine, ruleOf } from '@/ui/words/rule-words';

/** The way that is offered first: the safest that the organisation allows. */
export function firstWay(rules: readonly RuleRow[]): HandingOver {
  const form =
    DELIVERY_FORMS.find(
      (each) => judgeWays(rules, waysOf({ form: each })).forbidden.length === 0,
    ) ?? 'link';
  return { form, delivery: 'mail', titleOnCover: false, noteInMail: true, reason: '' };
}

/**
 * Link or file, mailed or carried, and whether the link asks for proof. What is not allowed stays
 * to be seen, with who decided so.
 */
export function HandOver({
  way,
  rules,
  onChange,
  openLink,
  onOpenLink,
  canOpenLink,
}: {
  readonly way: HandingOver;
  readonly rules: readonly RuleRow[];
  readonly onChange: (way: HandingOver) => void;
  readonly openLink: boolean;
  readonly onOpenLink: (on: boolean) => void;
  readonly canOpenLink: boolean;
}) {
  const { form, delivery } = way;
  const forbiddenIn = (each: DeliveryForm) =>
    judgeWays(rules, waysOf({ form: each })).forbidden.flatMap(
      (rule) => ruleOf(rules, rule.way) ?? [],
    );
  const open = ruleOf(rules, 'open-link');
  const closed = [...new Set(DELIVERY_FORMS.flatMap(forbiddenIn))];
  return (
    <>
      <div className="row" role="group" aria-label="What they get">
        {DELIVERY_FORMS.map((each) => (
          <ChipButton
            key={each}
            aria-pressed={form === each}
            disabled={forbiddenIn(each).length > 0}
            onClick={() => {
              onChange({ ...way, form: each });
            }}
          >
            {formWords[each].name}
          </ChipButton>
        ))}
        <span className="quiet">{formWords[form].hint}</span>
      </div>
      {closed.map((rule) => (
        <p key={rule.way} className="quiet">
          {formWords[formsOf(rule.way)[0] ?? 'link'].name}: {ruleLine(rule)}
        </p>
      ))}
      {carriesFile(form) && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={way.titleOnCover}
              onChange={(_event, on) => {
                onChange({ ...way, titleOnCover: on });
              }}
            />
          }
          label="Show the title on its first page and in its file name, beside the reference"
        />
      )}
      <div className="row" role="group" aria-label="Delivery">
        {DELIVERIES.map((each) => (
          <ChipButton
            key={each}
            aria-pressed={delivery === each}
            onClick={() => {
              onChange({ ...way, delivery: each });
            }}
          >
            {deliveryWords[each].name}
          </ChipButton>
        ))}
        <span className="quiet">{deliveryWords[delivery].hint}</span>
      </div>
      <div>
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={openLink}
              disabled={!openLink && (open?.leave === 'forbidden' || !canOpenLink)}
              onChange={(_event, on) => {
                onOpenLink(on);
              }}
            />
          }
          label="Also make an open link: anyone with the link can read"
        />
        {open !== undefined && open.leave !== 'allowed' && (
          <p className="quiet">{ruleLine(open)}</p>
        )}
      </div>
      {isInTheClear(form) && (
        <TextField
          label="Why unprotected"
          required
          value={way.reason}
          onChange={(event) => {
            onChange({ ...way, reason: event.target.value });
          }}
          helperText="Kept in the ledger"
          slotProps={{ htmlInput: { maxLength: 400 } }}
        />
      )}
    </>
  );
}
