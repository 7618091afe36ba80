export const stationNames = ['survey', 'gather', 'sheets', 'links', 'precedence', 'proof', 'hand-off'] as const;

export type StationName = (typeof stationNames)[number];

export const stationTitle: Record<StationName, string> = {
  survey: 'Survey',
  gather: 'Gather',
  sheets: 'Sheets',
  links: 'Links',
  precedence: 'Precedence',
  proof: 'Proof',
  'hand-off': 'Hand-off',
};
