export { makeAdmission, openDoor, type Admission } from './admission.ts';
export { passwordLimits, peopleHandlers } from './peopleRoutes.ts';
export { makePeopleService, type PeopleService } from './peopleService.ts';
