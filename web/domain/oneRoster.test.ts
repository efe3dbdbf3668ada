import { describe, expect, it } from 'vitest';
import { isRoster, readRoster } from './oneRoster.ts';

const USERS = `"sourcedId","status","orgSourcedIds","role","username","givenName","familyName","email"
u1,active,o1,student,ada,Ada,Quay,a@x.example
u2,active,o1,student,bo,Bo,"Tide, the younger",
u3,tobedeleted,o1,student,cy,Cy,Reef,
u4,active,o1,teacher,dee,Dee,Moor,
u5,active,o1,student,ada2,Ada,Buoy,`;
const ENROLLMENTS = `sourcedId,status,classSourcedId,schoolSourcedId,userSourcedId,role,primary
e1,active,c1,o1,u1,student,false
e2,active,c1,o1,u2,student,false
e3,active,c1,o1,u4,teacher,true
e4,active,c2,o1,u5,student,false
e5,tobedeleted,c2,o1,u2,student,false
e6,active,c3,o1,u3,student,false
e7,active,c1,o1,u1,student,false`;
const CLASSES = `sourcedId,status,title,courseSourcedId
c1,active,Music 4,k1
c2,active,Band,k2`;

describe('a roster of OneRoster files', () => {
  it('has the children of each class by first name, whatever the order of its files', () => {
    const classes = [
      { id: 'c2', title: 'Band', names: ['Ada'] },
      { id: 'c1', title: 'Music 4', names: ['Ada', 'Bo'] },
    ];
    expect(readRoster([USERS, ENROLLMENTS, CLASSES])).toEqual(classes);
    expect(readRoster([CLASSES, ENROLLMENTS, USERS])).toEqual(classes);
  });
  it('calls a class by its id where nothing says its title', () => {
    expect(readRoster([USERS, ENROLLMENTS]).map(({ title }) => title)).toEqual(['c1', 'c2']);
  });
  it('is one class where nothing says who is in which', () => {
    expect(readRoster([USERS])).toEqual([{ id: '', title: '', names: ['Ada', 'Bo', 'Ada'] }]);
  });
  it('of 1.2 has roles elsewhere and names that children go by; with a mark, semicolons and old line ends', () => {
    const head = '\uFEFFsourcedId;status;givenName;familyName;preferredGivenName';
    const users = [head, 'u1;;Adelaide;Quay;Ada', 'u2;active;Bo;Tide;', ''].join('\r\n');
    expect(readRoster([users])).toEqual([{ id: '', title: '', names: ['Ada', 'Bo'] }]);
  });
  it('never has a surname', () => {
    expect(JSON.stringify(readRoster([USERS, ENROLLMENTS, CLASSES]))).not.toMatch(/Quay|Tide|Buoy/);
  });
  it.each(['', 'Ada\nBo', 'name;class\nAda;4', 'sourcedId,title\nx,y'])('is not %j', (text) => {
    expect(isRoster(text)).toBe(false);
    expect(readRoster([text])).toEqual([]);
  });
  it('without users has no child', () => {
    expect(readRoster([ENROLLMENTS, CLASSES])).toEqual([]);
  });
});
